//! What a machine can't cut, told before its blade comes down.

use metrosk_core::geometry::{Region, Size};
use metrosk_core::length::{Length, Unit};
use metrosk_sheet::{BladeLine, BladeSheet};

/// Nothing shorter is cut, in inches: the paper would tear.
const LEAST: f64 = 0.25;
/// What two lines share of paper where it is more than a hair, in square inches.
const HAIR: f64 = 0.002;
/// So much beyond the sheet is nothing, in inches.
const BEYOND: f64 = 0.01;
/// The blade follows so many inches in a second.
const SPEED: f64 = 2.0;

/// Why a sheet can't be cut on a mat: what was found, and what is allowed.
pub(super) fn refusal(sheet: &BladeSheet, mat: Size) -> Option<String> {
    let (w, h) = sheet.size;
    let (mat_w, mat_h) = (mat.w.to_units(Unit::Inch), mat.h.to_units(Unit::Inch));
    let fits = |w: f64, h: f64| w <= mat_w + BEYOND && h <= mat_h + BEYOND;
    if !fits(w, h) && !fits(h, w) {
        return Some(format!(
            "the sheet is {} × {}, and its mat takes {} × {}",
            told(w),
            told(h),
            told(mat_w),
            told(mat_h)
        ));
    }
    if sheet.lines.is_empty() {
        return Some("nothing on the sheet is to be cut".to_owned());
    }
    let wrong = sheet
        .lines
        .iter()
        .zip(1..)
        .find_map(|(line, n)| wrong_with(line, n, sheet.size));
    wrong.or_else(|| overlap(&sheet.lines))
}

fn told(inches: f64) -> String {
    Length::from_units(inches, Unit::Inch).map_or_else(
        || format!("{inches:.2} in"),
        |length| length.to_ruler_text(Unit::Inch),
    )
}

fn wrong_with(line: &BladeLine, n: usize, (w, h): (f64, f64)) -> Option<String> {
    if !line.is_closed {
        return Some(format!(
            "line {n} is open: its end has to meet its beginning"
        ));
    }
    let (across, down) = line.size();
    if across.min(down) < LEAST {
        return Some(format!(
            "line {n} is {} × {}; nothing shorter than {} is cut",
            told(across),
            told(down),
            told(LEAST)
        ));
    }
    let is_out =
        |[x, y]: &[f64; 2]| *x < -BEYOND || *y < -BEYOND || *x > w + BEYOND || *y > h + BEYOND;
    line.corners
        .iter()
        .any(is_out)
        .then(|| format!("line {n} leaves the sheet"))
}

/// Two lines of which neither lies within the other may not share paper.
fn overlap(lines: &[BladeLine]) -> Option<String> {
    let inch = Unit::Inch.ticks() as f64;
    let regions: Vec<Region> = lines
        .iter()
        .map(|l| Region::within(l.corners.iter().map(|c| c.map(|v| v * inch)).collect()))
        .collect();
    let bounds: Vec<_> = regions.iter().map(Region::bounds).collect();
    for (a, first) in regions.iter().enumerate() {
        for (b, second) in regions.iter().enumerate().skip(a + 1) {
            let (Some(one), Some(two)) = (bounds[a], bounds[b]) else {
                continue;
            };
            if !one.overlaps(two, 1.0) {
                continue;
            }
            let shared = first.within_also(second).area() / inch / inch;
            let smaller = first.area().min(second.area()) / inch / inch;
            if shared > HAIR && smaller - shared > HAIR {
                return Some(format!("lines {} and {} run into each other", a + 1, b + 1));
            }
        }
    }
    None
}

/// How long the blade takes for lines, in seconds.
pub(super) fn seconds(lines: &[BladeLine]) -> f64 {
    let length = |line: &BladeLine| {
        let next = line.corners.iter().cycle().skip(1);
        let pairs = line.corners.iter().zip(next);
        let all = pairs.map(|(a, b)| (a[0] - b[0]).hypot(a[1] - b[1]));
        all.sum::<f64>()
    };
    lines.iter().map(length).sum::<f64>() / SPEED
}

#[cfg(test)]
mod tests {
    use super::*;

    fn square(x: f64, y: f64, side: f64) -> BladeLine {
        BladeLine {
            corners: vec![[x, y], [x + side, y], [x + side, y + side], [x, y + side]],
            is_closed: true,
        }
    }

    fn refused(size: (f64, f64), lines: Vec<BladeLine>) -> Option<String> {
        let mat = Size {
            w: Length::inches(12, 1),
            h: Length::inches(12, 1),
        };
        refusal(&BladeSheet { size, lines }, mat)
    }

    #[test]
    fn what_it_can_cut_it_takes() {
        let lines = vec![
            square(1.0, 1.0, 1.0),
            square(0.0, 0.0, 4.0),
            square(4.0, 0.0, 4.0),
        ];
        assert_eq!(refused((12.0, 12.0), lines), None);
    }

    #[test]
    fn what_it_can_not_cut_it_says() {
        let mut open = square(0.0, 0.0, 4.0);
        open.is_closed = false;
        let cases = [
            ((12.0, 24.0), vec![square(0.0, 0.0, 4.0)], "mat takes"),
            ((12.0, 12.0), vec![], "nothing on the sheet"),
            ((12.0, 12.0), vec![open], "line 1 is open"),
            (
                (12.0, 12.0),
                vec![square(0.0, 0.0, 0.125)],
                "shorter than 1/4",
            ),
            (
                (12.0, 12.0),
                vec![square(10.0, 0.0, 4.0)],
                "leaves the sheet",
            ),
            (
                (12.0, 12.0),
                vec![square(0.0, 0.0, 4.0), square(3.0, 3.0, 4.0)],
                "run into each other",
            ),
        ];
        for (size, lines, said) in cases {
            let found = refused(size, lines).unwrap_or_default();
            assert!(found.contains(said), "{found} for {said}");
        }
    }

    #[test]
    fn the_blade_takes_its_time() {
        assert!((seconds(&[square(0.0, 0.0, 4.0)]) - 8.0).abs() < 1e-9);
    }
}
