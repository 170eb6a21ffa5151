//! What the network says of blocks that were traced: their kinds, those that are none, those that were missed; and how sure each is.

use crate::blocks::{Form, Read};
use crate::marks::{ACCENT, CLUSTER, MAT, OUTSIDE, PAGE, PAPER, PHOTO, TITLE, WRITING};
use crate::panels::Panel;
use crate::plane::Parts;
use crate::seen::{Place, Seen};
use crate::sheet::{RIM, Sheet};
use crate::trace::Traced;
use crate::writing::Extent;

/// What speaks for a block, each 0 to 1 but for its size.
#[derive(Debug, Clone, Copy, Default)]
pub struct Evidence {
    /// How sure the tracing is; 0 for what the network alone saw.
    pub traced: f64,
    /// How likely what shows of it is of its kind.
    pub own: f64,
    /// How likely it is bare page.
    pub page: f64,
    /// How likely it is part of a photo.
    pub photo: f64,
    /// How likely things end along its outline, where that shows.
    pub edge: f64,
    /// The same along the side where it is the least likely.
    pub least_edge: f64,
    /// How likely what lies just round it is of its kind too.
    pub around: f64,
    /// The share of it that shows.
    pub shows: f64,
    /// Its area as a share of the page's, as a natural logarithm.
    pub size: f64,
}

impl Evidence {
    /// As the numbers that are weighed.
    #[must_use]
    pub fn numbers(&self) -> [f64; 9] {
        [
            self.traced,
            self.own,
            self.page,
            self.photo,
            self.edge,
            self.least_edge,
            self.around,
            self.shows,
            self.size,
        ]
    }
}

/// The ink of a thing may lie so far outside where the network sees it, in the sheet's pixels.
const LOOSE: f64 = 16.0;
/// Of what the network sees the ink that is meant fills at least this share.
const LEAST_FILLED: f64 = 0.4;
/// Half the width of an outline with its wobble, in the sheet's pixels.
const OUTLINE: f64 = 5.0;

/// The ink that is no outline of a panel or round, in parts.
fn loose(traced: &Traced) -> Parts {
    let mut ink = traced.ink.clone();
    let forms = traced.panels.iter().map(|p| Form::Panel(*p));
    for form in forms.chain(traced.rounds.iter().map(|r| Form::Round(*r))) {
        for [x, y] in form.outline() {
            let span = |at: f64, most: usize| {
                let low = (at - OUTLINE).max(0.0) as usize;
                low..((at + OUTLINE).max(0.0) as usize).min(most)
            };
            for y in span(y, ink.h) {
                for x in span(x, ink.w) {
                    ink.data[y * ink.w + x] = false;
                }
            }
        }
    }
    ink.connected_components(true)
}

/// The classes that a kind of block is seen as.
fn classes_of(kind: &str) -> &'static [usize] {
    match kind {
        "photo" => &[PHOTO],
        "mat" => &[MAT],
        "title" => &[TITLE],
        "journal" => &[WRITING],
        "cluster" => &[CLUSTER],
        "accent" => &[ACCENT],
        "grid" | "ring" => &[PHOTO, PAPER, ACCENT],
        _ => &[PAPER],
    }
}

/// How far outside an outline its surroundings are looked at, in the sheet's pixels.
const BESIDE: f64 = 14.0;
/// A form is looked at in so many steps across its longer side.
const STEPS: f64 = 26.0;
/// What lies this deep in what covers it does not show, in the sheet's pixels.
const COVERED: f64 = 2.0;

/// What the network says of the blocks of a sheet.
pub(crate) struct Judge<'a> {
    sheet: &'a Sheet,
    seen: Seen,
    /// The parts of the ink but for outlines of what was traced: letters, ornaments, lines of writing.
    loose: Parts,
}

impl<'a> Judge<'a> {
    pub(crate) fn new(sheet: &'a Sheet, traced: &Traced) -> Judge<'a> {
        Judge {
            sheet,
            seen: Seen::of(sheet),
            loose: loose(traced),
        }
    }

    /// An extent that the network saw, moved to the ink that it means.
    fn tightened(&self, e: Extent) -> Extent {
        let near = e.grown(LOOSE);
        let meant = self.loose.each().map(|(_, p)| Extent::of(&p)).filter(|o| {
            let inside = o.common(&near) >= 0.98 * o.area();
            inside && e.grown(LOOSE / 2.0).holds(o.middle())
        });
        let tight = meant.reduce(|a, b| a.with(&b)).unwrap_or(e);
        // Ink that fills only a corner of it is not what was seen.
        if tight.area() < LEAST_FILLED * e.area() {
            e
        } else {
            tight
        }
    }

    fn places(&self, form: &Form, shows: &dyn Fn([f64; 2]) -> bool) -> (Vec<Place<'_>>, f64) {
        let e = form.extent();
        let step = (e.w().max(e.h()) / STEPS).max(3.0);
        let (mut all, mut seen) = (0usize, Vec::new());
        let mut y = e.y0 + step / 2.0;
        while y < e.y1 {
            let mut x = e.x0 + step / 2.0;
            while x < e.x1 {
                if form.depth([x, y]) > 0.0 && self.holds([x, y]) {
                    all += 1;
                    seen.extend(
                        Some([x, y])
                            .filter(|p| shows(*p))
                            .and_then(|p| self.seen.at(p)),
                    );
                }
                x += step;
            }
            y += step;
        }
        let share = seen.len() as f64 / all.max(1) as f64;
        (seen, share)
    }

    /// Whether a place lies on the page.
    fn holds(&self, p: [f64; 2]) -> bool {
        let r = RIM as f64;
        p[0] > r && p[1] > r && p[0] < r + self.sheet.w() && p[1] < r + self.sheet.page_h
    }

    /// How likely each class is over what shows of a form, in the mean; and the share that shows.
    fn classes(&self, form: &Form, over: &[&Form]) -> ([f64; 9], f64) {
        let shows = |p: [f64; 2]| over.iter().all(|o| o.depth(p) < COVERED);
        let (places, share) = self.places(form, &shows);
        let count = places.len().max(1) as f64;
        let mean = |class: usize| places.iter().map(|p| p.likely(class)).sum::<f64>() / count;
        (std::array::from_fn(mean), share)
    }

    /// What speaks for a block under others.
    fn evidence(&self, block: &Read, over: &[&Form]) -> Evidence {
        let (classes, shows) = self.classes(&block.form, over);
        let own = |classes: &[f64; 9]| {
            let of = classes_of(block.kind).iter().map(|c| classes[*c]);
            of.fold(0.0, f64::max)
        };
        let (edge, least_edge, around) = self.along(block, over);
        let page = self.sheet.w() * self.sheet.page_h;
        Evidence {
            traced: block.sure.clamp(0.0, 1.0),
            own: own(&classes),
            page: classes[PAGE],
            photo: classes[PHOTO],
            edge,
            least_edge,
            around,
            shows,
            size: (block.form.area().max(1.0) / page).ln(),
        }
    }

    /// How likely things end along an outline in the mean and along its worst quarter; and how likely its surroundings are of its kind.
    fn along(&self, block: &Read, over: &[&Form]) -> (f64, f64, f64) {
        let outline = block.form.outline();
        let middle = block.form.extent().middle();
        let mut by_side: [Vec<f64>; 4] = Default::default();
        let (mut around, mut count) = (0.0, 0usize);
        for (n, p) in outline.iter().enumerate() {
            if !self.holds(*p) || over.iter().any(|o| o.depth(*p) > COVERED) {
                continue;
            }
            let Some(place) = self.seen.at(*p) else {
                continue;
            };
            by_side[n * 4 / outline.len()].push(place.edge_near());
            let away = [p[0] - middle[0], p[1] - middle[1]];
            let far = away[0].hypot(away[1]).max(1.0);
            let beside = [p[0] + away[0] / far * BESIDE, p[1] + away[1] / far * BESIDE];
            if let Some(place) = self.seen.at(beside).filter(|_| self.holds(beside)) {
                let own = classes_of(block.kind).iter().map(|c| place.likely(*c));
                around += own.fold(0.0, f64::max);
                count += 1;
            }
        }
        let mean = |of: &[f64]| of.iter().sum::<f64>() / of.len().max(1) as f64;
        let all: Vec<f64> = by_side.iter().flatten().copied().collect();
        // A side that hardly shows says nothing.
        let sides = by_side.iter().filter(|s| s.len() > 3).map(|s| mean(s));
        let least = sides.fold(f64::INFINITY, f64::min);
        let least = if least.is_finite() { least } else { mean(&all) };
        (mean(&all), least, around / count.max(1) as f64)
    }

    /// Judges blocks, bottom to top: gives another kind where the network is clear about one, adds what was missed, tells how sure each is.
    pub(crate) fn judged(&self, mut blocks: Vec<Read>) -> Vec<(Read, Evidence)> {
        for i in 0..blocks.len() {
            if let Some(other) = self.other_side(&blocks, i) {
                blocks[i].form = Form::Panel(other);
            }
            let (classes, _) = self.classes(&blocks[i].form, &over(&blocks, i));
            let Some(kind) = other_kind(&blocks[i], &classes) else {
                continue;
            };
            let framed = framed_by(&blocks, i);
            if kind == "mat" && framed.is_none() {
                continue;
            }
            blocks[i].kind = kind;
            blocks[i].under = framed.filter(|_| kind == "mat");
        }
        let missed = self.missed(&blocks);
        blocks.extend(missed);
        let evidence: Vec<Evidence> = (0..blocks.len())
            .map(|i| self.evidence(&blocks[i], &over(&blocks, i)))
            .collect();
        blocks.into_iter().zip(evidence).collect()
    }

    /// Of a paper whose one line divides the page the part on the other side, where that is more likely the paper; of two that are
    /// about as likely the smaller is meant.
    fn other_side(&self, blocks: &[Read], i: usize) -> Option<Panel> {
        let Form::Panel(panel) = &blocks[i].form else {
            return None;
        };
        if panel.edges.iter().filter(|e| **e).count() != 3 {
            return None;
        }
        let rim = RIM as f64;
        let e = panel.extent();
        let side = ((e.middle()[0] - rim) / self.sheet.page_w).floor().max(0.0);
        let left = rim + side * self.sheet.page_w;
        let [l, t, r, _] = panel.edges;
        let page = Extent {
            x0: left,
            y0: rim,
            x1: left + self.sheet.page_w,
            y1: rim + self.sheet.page_h,
        };
        let (extent, edges) = match (l, t, r) {
            (false, _, _) => (Extent { x1: e.x0, ..page }, [true, true, false, true]),
            (_, _, false) => (Extent { x0: e.x1, ..page }, [false, true, true, true]),
            (_, false, _) => (Extent { y1: e.y0, ..page }, [true, true, true, false]),
            _ => (Extent { y0: e.y1, ..page }, [true, false, true, true]),
        };
        let other = Panel {
            edges,
            ..Panel::upright(extent)
        };
        let paper = |p: &Panel| self.classes(&Form::Panel(*p), &over(blocks, i)).0[PAPER];
        let (here, there) = (paper(panel), paper(&other));
        let is_other = if (here - there).abs() < AS_LIKELY {
            other.area() < panel.area()
        } else {
            there > here
        };
        is_other.then_some(other)
    }

    /// What the network sees and no block is.
    fn missed(&self, blocks: &[Read]) -> Vec<Read> {
        let is_known = |class: usize, e: &Extent| {
            blocks.iter().any(|b| {
                let f = b.form.extent();
                let alike = f.common(e) > ALIKE * f.with(e).area();
                alike && classes_of(b.kind).contains(&class)
            })
        };
        let pieces = self.seen.pieces().into_iter();
        pieces
            .map(|(class, e, likely)| (class, self.tightened(e), likely))
            .filter(|(class, e, _)| !is_known(*class, e))
            .map(|(class, extent, _)| {
                let kind = match class {
                    TITLE => "title",
                    WRITING => "journal",
                    _ => "cluster",
                };
                let middle = extent.middle();
                let host = (0..blocks.len()).rev().find(|&i| {
                    matches!(blocks[i].kind, "photo" | "mat" | "paper" | "strip" | "grid")
                        && blocks[i].form.depth(middle) > 0.0
                });
                Read {
                    kind,
                    form: Form::Ink(extent),
                    sure: 0.0,
                    under: None,
                    host: host.filter(|_| kind == "cluster"),
                }
            })
            .collect()
    }
}

/// What lies over a block; another sight of the same word or cluster is none.
fn over(blocks: &[Read], i: usize) -> Vec<&Form> {
    let e = blocks[i].form.extent();
    let is_rival = |o: &&Read| {
        let f = o.form.extent();
        is_soft(blocks[i].kind) && is_soft(o.kind) && lie_in_one_another(&e, &f)
    };
    let above = blocks[i + 1..].iter();
    above.filter(|o| !is_rival(o)).map(|o| &o.form).collect()
}

/// Whether a kind is told by its ink, and has no outline.
pub(crate) fn is_soft(kind: &str) -> bool {
    matches!(kind, "title" | "journal" | "cluster")
}

pub(crate) fn lie_in_one_another(a: &Extent, b: &Extent) -> bool {
    a.common(b) > WITHIN * a.area().min(b.area())
}

/// What a mat frames takes up at least this share of it.
const FRAMED: f64 = 0.45;

/// The block that one could be the mat of: over it, within it, and nearly as large.
fn framed_by(blocks: &[Read], i: usize) -> Option<usize> {
    let mat = blocks[i].form.extent().grown(3.0);
    (i + 1..blocks.len()).find(|&j| {
        let e = blocks[j].form.extent();
        let inside = mat.common(&e) >= 0.999 * e.area();
        inside && !is_soft(blocks[j].kind) && e.area() > FRAMED * mat.area()
    })
}

/// Two extents are one thing seen twice when they share so much of both.
const ALIKE: f64 = 0.85;
/// Of two words, or two clusters, one lies in the other when they share so much of the smaller one.
const WITHIN: f64 = 0.6;

/// Two sides of a line are about as likely the paper when they differ by less.
const AS_LIKELY: f64 = 0.15;

/// The network is clear about a class when it is so much likelier than the block's own.
const CLEARLY: f64 = 0.4;

/// The kind that the network clearly sees in what was traced as another.
fn other_kind(block: &Read, classes: &[f64; 9]) -> Option<&'static str> {
    let own = classes_of(block.kind).iter().map(|c| classes[*c]);
    let own = own.fold(0.0, f64::max);
    let (best, likely) = (PHOTO..=ACCENT)
        .map(|c| (c, classes[c]))
        .max_by(|a, b| a.1.total_cmp(&b.1))?;
    if likely - own < CLEARLY || classes[OUTSIDE] + classes[PAGE] > likely {
        return None;
    }
    let e = block.form.extent();
    let is_long = e.w().max(e.h()) > 3.5 * e.w().min(e.h());
    match (&block.form, best) {
        (Form::Lattice(_) | Form::Ring(_), _) => None,
        // What frames something stays a mat: hardly any of it shows.
        (_, _) if block.kind == "mat" => None,
        (Form::Panel(_) | Form::Round(_), MAT) => Some("mat"),
        (_, PHOTO) => Some("photo"),
        (Form::Ink(_), PAPER) => None,
        (_, PAPER) if is_long => Some("strip"),
        (_, PAPER) => Some("paper"),
        (_, TITLE) => Some("title"),
        (_, WRITING) => Some("journal"),
        (_, CLUSTER) => Some("cluster"),
        (_, ACCENT) => Some("accent"),
        _ => None,
    }
}
