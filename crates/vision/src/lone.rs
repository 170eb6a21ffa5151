//! Papers that run off the page on three sides: of their outline one line shows, from one edge of the page to another.

use crate::panels::Panel;
use crate::sheet::{RIM, Sheet};
use crate::strokes::{Run, between};
use crate::writing::Extent;

/// A line may lean by so many degrees.
const LEAN: f64 = 1.8;
/// Runs of one line lie within so many pixels of each other.
const BESIDE: f64 = 5.0;
/// Of a line that crosses the page so much must be seen, and so much seen or covered.
const SEEN: f64 = 0.22;
const ACCOUNTED: f64 = 0.93;
/// A line this near to the page's edge, in pixels, is that edge drawn twice.
const OFF_EDGE: f64 = 40.0;
/// Lines of more than so many are a pattern.
const MOST: usize = 3;

/// What a line across the page divides it into: the part before it (left or above) and the part after it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Divided {
    pub(crate) before: Panel,
    pub(crate) after: Panel,
}

/// Lines that cross a page and are no outline's side; `covers` are what may hide them.
pub(crate) fn lines_across(sheet: &Sheet, runs: &[Run], covers: &[Extent]) -> Vec<Divided> {
    let rim = RIM as f64;
    let mut found = Vec::new();
    for side in 0..sheet.pages {
        let left = rim + sheet.page_w * f64::from(side);
        let page = Extent {
            x0: left,
            y0: rim,
            x1: left + sheet.page_w,
            y1: rim + sheet.page_h,
        };
        for upright in [true, false] {
            let lines = across(&page, runs, covers, upright);
            if lines.len() <= MOST {
                found.extend(lines.into_iter().map(|at| divided(page, at, upright)));
            }
        }
    }
    found
}

/// Where lines of one direction lie that cross a page.
fn across(page: &Extent, runs: &[Run], covers: &[Extent], upright: bool) -> Vec<f64> {
    // Seen as if all lines were upright: `at` across, `along` down.
    let turned = |p: [f64; 2]| if upright { p } else { [p[1], p[0]] };
    let (first, last) = if upright {
        (page.y0, page.y1)
    } else {
        (page.x0, page.x1)
    };
    let (low, high) = if upright {
        (page.x0, page.x1)
    } else {
        (page.y0, page.y1)
    };
    let mut pieces: Vec<(f64, f64, f64)> = runs
        .iter()
        .filter(|r| between(r.angle(), if upright { 90.0 } else { 0.0 }) < LEAN)
        .map(|r| {
            let (a, b) = (turned(r.a), turned(r.b));
            (turned(r.middle())[0], a[1].min(b[1]), a[1].max(b[1]))
        })
        .filter(|(at, from, to)| {
            *at > low + OFF_EDGE && *at < high - OFF_EDGE && *to > first && *from < last
        })
        .collect();
    pieces.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut lines = Vec::new();
    for group in pieces.chunk_by(|a, b| b.0 - a.0 < BESIDE) {
        let long: f64 = group.iter().map(|(_, from, to)| to - from).sum();
        let at = group
            .iter()
            .map(|(at, from, to)| at * (to - from))
            .sum::<f64>()
            / long;
        let mut spans: Vec<(f64, f64)> = group.iter().map(|(_, from, to)| (*from, *to)).collect();
        let seen = joint(&mut spans, first, last);
        spans.extend(covers.iter().filter_map(|e| {
            let (x0, x1) = if upright { (e.x0, e.x1) } else { (e.y0, e.y1) };
            let (y0, y1) = if upright { (e.y0, e.y1) } else { (e.x0, e.x1) };
            (x0 <= at && at <= x1).then_some((y0, y1))
        }));
        let all = last - first;
        if seen > SEEN * all && joint(&mut spans, first - 6.0, last + 6.0) > ACCOUNTED * all {
            lines.push(at);
        }
    }
    lines
}

/// How much of a stretch spans take up together, with gaps as wide as a pen's lift closed.
fn joint(spans: &mut [(f64, f64)], first: f64, last: f64) -> f64 {
    const LIFT: f64 = 10.0;
    spans.sort_by(|a, b| a.0.total_cmp(&b.0));
    let (mut sum, mut until) = (0.0, first - 2.0 * LIFT);
    for (from, to) in spans.iter() {
        let from = if *from - until < LIFT { until } else { *from };
        let (from, to) = (from.max(first).max(until), to.min(last));
        sum += (to - from).max(0.0);
        until = until.max(to);
    }
    sum
}

fn divided(page: Extent, at: f64, upright: bool) -> Divided {
    let part = |extent: Extent, edges: [bool; 4]| Panel {
        edges,
        ..Panel::upright(extent)
    };
    if upright {
        Divided {
            before: part(Extent { x1: at, ..page }, [true, true, false, true]),
            after: part(Extent { x0: at, ..page }, [false, true, true, true]),
        }
    } else {
        Divided {
            before: part(Extent { y1: at, ..page }, [true, true, true, false]),
            after: part(Extent { y0: at, ..page }, [true, false, true, true]),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn run(a: [f64; 2], b: [f64; 2]) -> Run {
        Run {
            a,
            b,
            thick: 2.0,
            dark: 100.0,
        }
    }

    #[test]
    fn a_line_goes_on_under_what_lies_on_it() {
        let page = Extent {
            x0: 30.0,
            y0: 30.0,
            x1: 1230.0,
            y1: 1230.0,
        };
        let photo = Extent {
            x0: 150.0,
            y0: 200.0,
            x1: 600.0,
            y1: 800.0,
        };
        let runs = [
            run([380.0, 36.0], [380.5, 198.0]),
            run([380.5, 803.0], [380.0, 1224.0]),
        ];
        let lines = across(&page, &runs, &[photo], true);
        assert_eq!(lines.len(), 1);
        assert!((lines[0] - 380.3).abs() < 0.5, "{lines:?}");
        // Without the photo the line ends in the middle of the page.
        assert!(across(&page, &runs, &[], true).is_empty());
        assert!(across(&page, &runs, &[photo], false).is_empty());
    }
}
