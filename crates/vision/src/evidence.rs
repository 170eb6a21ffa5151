//! What speaks for a kind: fill, size, place, neighbours, what is drawn inside; and whose outline shows over whose.

use crate::blocks::Form;
use crate::panels::Panel;
use crate::plane::quantile;
use crate::rounds::Round;
use crate::sheet::{RIM, Sheet};
use crate::strokes::between;
use crate::trace::Traced;
use crate::writing::{Extent, Writing};

/// How an area looks: its tone as a share of the bare page's, its colour, and how much of it is ink.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Look {
    tone: f32,
    colour: [f32; 3],
    ink: f32,
}

impl Look {
    pub(crate) fn differs(&self, other: &Look) -> bool {
        let far = (0..3)
            .map(|k| (self.colour[k] - other.colour[k]).abs())
            .fold(0.0, f32::max);
        (self.tone - other.tone).abs() > 0.05 || far > 0.07 || (self.ink - other.ink).abs() > 0.035
    }

    /// Whether it has more ink than its neighbour, and no other fill.
    pub(crate) fn is_dotted_beside(&self, other: &Look) -> bool {
        self.ink > other.ink + 0.015 && (self.tone - other.tone).abs() < 0.06
    }
}

pub(crate) struct Evidence<'a> {
    sheet: &'a Sheet,
    traced: &'a Traced,
    /// Tone of the bare page.
    paper: f32,
}

impl<'a> Evidence<'a> {
    pub(crate) fn new(sheet: &'a Sheet, traced: &'a Traced) -> Evidence<'a> {
        let paper = sheet.gray.quantile(0.9, 11);
        Evidence {
            sheet,
            traced,
            paper,
        }
    }

    pub(crate) fn in_cluster(&self, e: &Extent) -> bool {
        self.traced
            .clusters
            .iter()
            .any(|c| c.grown(6.0).common(e) > 0.7 * e.area())
    }

    /// A panel made of strokes that belong to others: it lies in a cluster, or it is the page itself.
    pub(crate) fn is_ghost(&self, panel: &Panel) -> bool {
        panel.edges.iter().filter(|e| **e).count() == 4 || self.in_cluster(&panel.extent())
    }

    /// How an upright area looks where nothing lies on it.
    pub(crate) fn look(&self, e: &Extent) -> Look {
        let inner = Extent {
            x0: e.x0 + 5.0,
            y0: e.y0 + 5.0,
            x1: e.x1 - 5.0,
            y1: e.y1 - 5.0,
        };
        let rim = RIM as f64 + 8.0;
        let (mut tones, mut colours, mut ink) =
            (Vec::new(), [Vec::new(), Vec::new(), Vec::new()], 0);
        let step = (inner.area().max(1.0) / 12_000.0).sqrt().max(1.0);
        let covered = |p: [f64; 2]| {
            self.traced.clusters.iter().any(|c| c.grown(6.0).holds(p))
                || self
                    .traced
                    .panels
                    .iter()
                    .any(|o| o.edges == [false; 4] && o.depth(p) > -8.0)
        };
        let mut y = inner.y0.max(rim);
        while y < inner.y1.min(self.sheet.gray.h as f64 - rim) {
            let mut x = inner.x0.max(rim);
            while x < inner.x1.min(self.sheet.gray.w as f64 - rim) {
                if !covered([x, y]) {
                    let (px, py) = (x as usize, y as usize);
                    tones.push(self.sheet.gray.at(px, py) / self.paper);
                    for (list, plane) in colours.iter_mut().zip(&self.sheet.colours) {
                        list.push(plane.at(px, py) / self.paper);
                    }
                    ink += usize::from(self.traced.ink.at(px, py));
                }
                x += step;
            }
            y += step;
        }
        let n = tones.len().max(1) as f32;
        Look {
            tone: quantile(&mut tones, 0.5),
            colour: colours.map(|mut c| quantile(&mut c, 0.5)),
            ink: ink as f32 / n,
        }
    }

    /// How the bare page looks.
    pub(crate) fn bare(&self) -> Look {
        Look {
            tone: 1.0,
            colour: [0, 1, 2].map(|k| self.sheet.colours[k].quantile(0.9, 11) / self.paper),
            ink: 0.0,
        }
    }

    /// The median tone (share of the bare page's) and colourfulness inside an area, but for what lies in it.
    fn fill(&self, inside: &dyn Fn([f64; 2]) -> bool, e: Extent) -> (f32, f32) {
        let (mut tones, mut colours) = (Vec::new(), Vec::new());
        let smaller = |p: [f64; 2]| {
            self.traced.clusters.iter().any(|c| c.holds(p))
                || self
                    .traced
                    .panels
                    .iter()
                    .any(|o| o.extent().area() < 0.7 * e.area() && o.depth(p) > -4.0)
        };
        let step = (e.area().sqrt() / 40.0).max(2.0);
        let mut y = e.y0 + step / 2.0;
        while y < e.y1 {
            let mut x = e.x0 + step / 2.0;
            while x < e.x1 {
                if inside([x, y]) && !smaller([x, y]) {
                    let (px, py) = (
                        (x as usize).min(self.sheet.gray.w - 1),
                        (y as usize).min(self.sheet.gray.h - 1),
                    );
                    let c = [0, 1, 2].map(|k| self.sheet.colours[k].at(px, py));
                    tones.push(self.sheet.gray.at(px, py) / self.paper);
                    colours.push(
                        c.iter().copied().fold(0.0, f32::max)
                            - c.iter().copied().fold(255.0, f32::min),
                    );
                }
                x += step;
            }
            y += step;
        }
        if tones.is_empty() {
            (1.0, 0.0)
        } else {
            (quantile(&mut tones, 0.5), quantile(&mut colours, 0.5))
        }
    }

    /// Whether two diagonals cross in its middle, or many parallel strokes fill it.
    fn crossed(&self, panel: &Panel) -> bool {
        let m = panel.middle;
        let near = 0.14 * panel.w.min(panel.h);
        let inside: Vec<_> = self
            .traced
            .runs
            .iter()
            .filter(|r| {
                panel.depth(r.a) > -6.0 && panel.depth(r.b) > -6.0 && panel.depth(r.middle()) > 6.0
            })
            .collect();
        let slanted = |r: &&&crate::strokes::Run| {
            (20.0..70.0).contains(&between(r.angle(), panel.turn))
                || between(r.angle(), panel.turn) > 20.0
                    && between(r.angle(), panel.turn + 90.0) > 20.0
        };
        let diagonals: Vec<_> = inside
            .iter()
            .filter(slanted)
            .filter(|r| r.off(m) < near && r.length() > 0.16 * panel.w.hypot(panel.h))
            .collect();
        let crossing = diagonals.iter().any(|a| {
            diagonals
                .iter()
                .any(|b| between(a.angle(), b.angle()) > 25.0)
        });
        let hatch = inside.iter().filter(slanted).count();
        crossing || hatch >= 8 && inside.len() < hatch * 2
    }

    fn has_label(&self, panel: &Panel) -> bool {
        self.traced
            .writing
            .iter()
            .any(|w| !w.lines && self.labels(w, panel))
    }

    /// Whether letters are the label of a photo's place: small, in its middle.
    fn labels(&self, w: &Writing, panel: &Panel) -> bool {
        let [x, y] = w.extent.middle();
        let (dx, dy) = ((x - panel.middle[0]).abs(), (y - panel.middle[1]).abs());
        let edges = panel.edges.iter().filter(|e| **e).count();
        let small =
            w.extent.h() < 95.0 && w.extent.w() < 0.72 * panel.w && w.extent.h() < 0.4 * panel.h;
        let alone = !self.traced.panels.iter().any(|o| {
            o.area() < 0.6 * panel.area() && o.points().iter().all(|&q| panel.depth(q) > -4.0)
        });
        small
            && alone
            && edges == 0
            && dx < 0.2 * panel.w
            && dy < 0.2 * panel.h
            && panel.w < 5.0 * panel.h
    }

    pub(crate) fn is_label(&self, w: &Writing) -> bool {
        !w.lines && self.traced.panels.iter().any(|p| self.labels(w, p))
    }

    /// What a panel that frames nothing is, and how sure that is.
    pub(crate) fn kind(&self, panel: &Panel, in_mat: bool) -> (&'static str, f64) {
        let e = panel.extent();
        let lines = self.traced.writing.iter().any(|w| {
            w.lines
                && e.grown(4.0).common(&w.extent) > 0.85 * w.extent.area()
                && w.extent.w() > 0.5 * e.w()
                && w.extent.h() > 0.4 * e.h()
        });
        if lines {
            return ("journal", 0.95);
        }
        let (long, short) = (panel.w.max(panel.h), panel.w.min(panel.h));
        let (tone, colour) = self.fill(&|p| panel.depth(p) > 8.0, e);
        let gray = tone < 0.8 && colour < 26.0;
        let edges = panel.edges.iter().filter(|e| **e).count();
        let across = if panel.w > panel.h {
            self.sheet.w()
        } else {
            self.sheet.page_h
        };
        let page = if panel.w > panel.h {
            self.sheet.page_w
        } else {
            self.sheet.page_h
        };
        let reaches = long > 0.7 * page && short < 0.24 * self.sheet.page_w.min(self.sheet.page_h);
        if edges == 0 && (self.crossed(panel) || self.has_label(panel)) {
            return ("photo", 0.95);
        }
        if in_mat {
            return ("photo", if gray { 0.95 } else { 0.85 });
        }
        if reaches && (edges > 0 || long > 0.9 * across) || edges > 0 && long > 3.5 * short {
            return ("strip", 0.9);
        }
        if gray && edges == 0 && short > 60.0 {
            return ("photo", 0.9);
        }
        if edges == 0 && short < 130.0 && long < 300.0 && long > 1.35 * short {
            return ("accent", 0.7);
        }
        let drawn = self.drawn();
        let on_top = !self
            .traced
            .panels
            .iter()
            .any(|o| o.area() < 0.9 * panel.area() && panel.depth(o.middle) > 4.0);
        if drawn
            && edges == 0
            && on_top
            && long < 2.3 * short
            && short > 120.0
            && long < 0.62 * self.sheet.page_h
        {
            return ("photo", 0.6);
        }
        if long > 5.0 * short && long > 0.4 * page {
            ("strip", 0.6)
        } else {
            ("paper", if on_top { 0.6 } else { 0.85 })
        }
    }

    /// Whether the picture is drawn in strokes alone: nothing in it is filled.
    fn drawn(&self) -> bool {
        !self
            .traced
            .panels
            .iter()
            .any(|p| self.fill(&|q| p.depth(q) > 8.0, p.extent()).0 < 0.8)
    }

    pub(crate) fn round_kind(&self, round: &Round) -> (&'static str, f64) {
        let (tone, colour) = self.fill(&|p| Form::Round(*round).depth(p) > 6.0, round.extent());
        if tone < 0.8 && colour < 26.0 && round.rx > 60.0 {
            ("photo", 0.7)
        } else if round.rx < 60.0 {
            ("accent", 0.7)
        } else {
            ("paper", 0.9)
        }
    }

    /// The share of one outline that shows inside another thing; `None` when none of it lies there.
    pub(crate) fn shows(&self, a: &Form, b: &Form) -> Option<f64> {
        let ink = &self.traced.ink;
        let (mut seen, mut all) = (0, 0);
        let rim = RIM as f64 + 8.0;
        for p in a.outline() {
            let on_page =
                p[0] > rim && p[1] > rim && p[0] < ink.w as f64 - rim && p[1] < ink.h as f64 - rim;
            if !on_page
                || b.depth(p) < 7.0
                || self.traced.clusters.iter().any(|c| c.grown(4.0).holds(p))
            {
                continue;
            }
            all += 1;
            let (x, y) = (p[0] as i32, p[1] as i32);
            seen += i32::from((-4..=4).any(|d| ink.get(x + d, y) || ink.get(x, y + d)));
        }
        (all >= 4).then(|| f64::from(seen) / f64::from(all))
    }
}
