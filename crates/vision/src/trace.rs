//! All outlines of a sheet: writing out first, then clusters, then what is wholly seen, then what is half covered.

use crate::clusters;
use crate::lone::{self, Divided};
use crate::panels::{Bounds, Care, Cover, Frame, Panel};
use crate::plane::Mask;
use crate::progress::{Stage, Stopped, step};
use crate::rounds::{self, Round};
use crate::sheet::{RIM, Sheet};
use crate::strokes::{self, Run};
use crate::tags;
use crate::washes::{self, Known};
use crate::writing::{self, Extent, Writing};

/// Which corner of the page a triangle sits in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Wedge {
    pub(crate) extent: Extent,
    pub(crate) right: bool,
    pub(crate) bottom: bool,
}

impl Wedge {
    /// The right angle first.
    pub(crate) fn points(&self) -> [[f64; 2]; 3] {
        let e = self.extent;
        let (x, other_x) = if self.right {
            (e.x1, e.x0)
        } else {
            (e.x0, e.x1)
        };
        let (y, other_y) = if self.bottom {
            (e.y1, e.y0)
        } else {
            (e.y0, e.y1)
        };
        [[x, y], [other_x, y], [x, other_y]]
    }

    /// How far inside a place lies.
    pub(crate) fn depth(&self, p: [f64; 2]) -> f64 {
        let [c, a, b] = self.points();
        let (u, v) = ((p[0] - c[0]) / (a[0] - c[0]), (p[1] - c[1]) / (b[1] - c[1]));
        u.min(v).min(1.0 - u - v) * self.extent.w().min(self.extent.h())
    }
}

/// What was traced, in pixels of the sheet's planes.
#[derive(Debug)]
pub(crate) struct Traced {
    /// All ink, writing included.
    pub(crate) ink: Mask,
    pub(crate) runs: Vec<Run>,
    pub(crate) writing: Vec<Writing>,
    pub(crate) clusters: Vec<Extent>,
    pub(crate) panels: Vec<Panel>,
    pub(crate) rounds: Vec<Round>,
    pub(crate) wedges: Vec<Wedge>,
    /// Small closed outlines that are no rectangles, by their corners.
    pub(crate) tags: Vec<Vec<[f64; 2]>>,
    /// Tones without an outline.
    pub(crate) washes: Vec<Extent>,
    /// Lines across the page: one of the two parts may be a paper that runs off it on three sides.
    pub(crate) lone: Vec<Divided>,
}

/// More panels than this are noise.
const MOST: usize = 160;

/// More straight runs than this are a texture, no drawing: the longest are read, so that no picture takes without end.
const MOST_RUNS: usize = 1_500;

/// Traces a sheet.
pub(crate) fn trace(sheet: &Sheet, go_on: &dyn Fn(Stage) -> bool) -> Result<Traced, Stopped> {
    let ink = sheet.inked();
    let mut mask = ink.clone();
    let writing = writing::take_out(sheet, &mut mask);
    step(go_on, Stage::Strokes)?;
    let mut runs = strokes::runs(&sheet.ink, &mask, 12.0);
    if runs.len() > MOST_RUNS {
        runs.sort_by(|a, b| b.length().total_cmp(&a.length()));
        runs.truncate(MOST_RUNS);
    }
    let clusters = clusters::find(&mask, &runs);
    let of_cluster = |p: [f64; 2]| clusters.iter().any(|e| e.grown(4.0).holds(p));
    let free: Vec<Run> = runs
        .iter()
        .filter(|r| !(of_cluster(r.a) && of_cluster(r.b)))
        .copied()
        .collect();
    let wedges: Vec<Wedge> = free.iter().filter_map(|r| wedge(r, sheet)).collect();
    let mut covers: Vec<Cover> = clusters
        .iter()
        .map(|e| Cover::Panel(Panel::upright(e.grown(10.0))))
        .collect();
    let mut frames = frames(&free, &mask, sheet);
    for cover in &covers {
        frames.iter_mut().for_each(|f| f.cover(cover));
    }
    let (mut panels, mut rounds) = (Vec::new(), Vec::new());
    step(go_on, Stage::Blocks)?;
    // How much was known when the last search for rounds found none: with no more known it would find none again.
    let mut searched = None;
    let mut looks = 0;
    for care in [Care::Whole, Care::Covered, Care::Touching] {
        loop {
            step(go_on, Stage::Blocks)?;
            let before = panels.len();
            panels_of(&mut frames, care, &mut covers, &mut panels);
            let open = unexplained(&free, &panels, &rounds);
            let most = sheet.page_w.min(sheet.page_h) * 0.6;
            let mut any = false;
            let known = (panels.len(), rounds.len());
            while searched != Some(known)
                && rounds.len() < 60
                && let Some(round) = rounds::best(
                    &mask,
                    &unexplained(&open, &[], &rounds),
                    &covers,
                    most,
                    &mut looks,
                )
            {
                rounds.push(round);
                let cover = Cover::Ellipse(round.extent().grown(-4.0));
                frames.iter_mut().for_each(|f| f.cover(&cover));
                covers.push(cover);
                any = true;
            }
            searched = Some((panels.len(), rounds.len()));
            if !any && panels.len() == before || panels.len() > MOST {
                break;
            }
        }
    }
    let tags = tags::find(&mask, &sheet.gray, &panels, &rounds, &clusters);
    let known = Known {
        panels: &panels,
        rounds: &rounds,
        wedges: &wedges,
        clusters: &clusters,
        tags: &tags,
    };
    let washes = washes::find(sheet, &known);
    let lone = lone::lines_across(
        sheet,
        &unexplained(&free, &panels, &rounds),
        &hiding(&panels, &rounds, &clusters, &writing),
    );
    Ok(Traced {
        ink,
        runs: free,
        writing,
        clusters,
        panels,
        rounds,
        wedges,
        tags,
        washes,
        lone,
    })
}

/// What may lie over a line: everything that is closed or written.
fn hiding(
    panels: &[Panel],
    rounds: &[Round],
    clusters: &[Extent],
    writing: &[Writing],
) -> Vec<Extent> {
    let panels = panels.iter().map(Panel::extent);
    let rounds = rounds.iter().map(Round::extent);
    let soft = clusters
        .iter()
        .copied()
        .chain(writing.iter().map(|w| w.extent));
    panels
        .chain(rounds)
        .chain(soft.map(|e| e.grown(8.0)))
        .collect()
}

fn panels_of(frames: &mut [Frame], care: Care, covers: &mut Vec<Cover>, panels: &mut Vec<Panel>) {
    for k in 0..frames.len() {
        while let Some((rough, panel)) = frames[k].best(care, panels) {
            for frame in frames.iter_mut() {
                frame.explain(&rough);
                frame.explain(&panel);
                frame.cover(&Cover::Panel(panel));
            }
            covers.push(Cover::Panel(panel));
            panels.push(panel);
            if panels.len() > MOST {
                return;
            }
        }
    }
}

/// The frame of the page itself, and one of every other direction that enough ink runs in.
fn frames(runs: &[Run], mask: &Mask, sheet: &Sheet) -> Vec<Frame> {
    let r = RIM as f64;
    let size = (mask.w as f64, mask.h as f64);
    let bounds = Bounds {
        x0: r,
        y0: r,
        x1: r + sheet.w(),
        y1: r + sheet.page_h,
        fold: (sheet.pages == 2).then_some(r + sheet.page_w),
    };
    let mut turns: Vec<(f64, f64)> = Vec::new();
    for run in runs.iter().filter(|r| r.length() >= 60.0) {
        let mut angle = run.angle().rem_euclid(90.0);
        if angle > 45.0 {
            angle -= 90.0;
        }
        if angle.abs() < 2.2 {
            continue;
        }
        match turns.iter_mut().find(|(t, _)| (*t - angle).abs() < 2.2) {
            Some((turn, long)) => {
                *turn = (*turn * *long + angle * run.length()) / (*long + run.length());
                *long += run.length();
            }
            None => turns.push((angle, run.length())),
        }
    }
    turns.retain(|t| t.1 > 220.0);
    turns.sort_by(|a, b| b.1.total_cmp(&a.1));
    turns.truncate(6);
    std::iter::once(Frame::new(0.0, runs, size, Some(bounds)))
        .chain(turns.iter().map(|t| Frame::new(t.0, runs, size, None)))
        .collect()
}

/// A diagonal between two edges of a page cuts its corner off.
fn wedge(run: &Run, sheet: &Sheet) -> Option<Wedge> {
    let lean = run.angle().abs();
    if !(18.0..=72.0).contains(&lean) || run.length() < 60.0 {
        return None;
    }
    let r = RIM as f64;
    let near = 18.0;
    let (x0, y0, y1) = (r, r, r + sheet.page_h);
    let x1 = r + sheet.w();
    let on_side = |p: [f64; 2]| {
        if (p[0] - x0).abs() < near {
            Some(x0)
        } else if (p[0] - x1).abs() < near {
            Some(x1)
        } else {
            None
        }
    };
    let on_end = |p: [f64; 2]| {
        if (p[1] - y0).abs() < near {
            Some(y0)
        } else if (p[1] - y1).abs() < near {
            Some(y1)
        } else {
            None
        }
    };
    for (side, end) in [(run.a, run.b), (run.b, run.a)] {
        let (Some(x), Some(y)) = (on_side(side), on_end(end)) else {
            continue;
        };
        // The run's line meets the page's edges a little further on.
        let slope = (run.b[1] - run.a[1]) / (run.b[0] - run.a[0]);
        let (ys, xe) = (
            side[1] + slope * (x - side[0]),
            end[0] + (y - end[1]) / slope,
        );
        let extent = Extent {
            x0: x.min(xe),
            y0: y.min(ys),
            x1: x.max(xe),
            y1: y.max(ys),
        };
        return Some(Wedge {
            extent,
            right: x == x1,
            bottom: y == y1,
        });
    }
    None
}

/// Runs that lie along no panel's side and no round's edge.
fn unexplained(runs: &[Run], panels: &[Panel], rounds: &[Round]) -> Vec<Run> {
    let along = |run: &Run| {
        let m = run.middle();
        let side = |p: &Panel| {
            // Most panels are far away: that is asked first, for this is asked of every run and panel.
            if p.depth(m).abs() >= 8.0 {
                return false;
            }
            let q = p.points();
            (0..4).any(|k| {
                let side = Run {
                    a: q[k],
                    b: q[(k + 1) % 4],
                    thick: 0.0,
                    dark: 0.0,
                };
                strokes::between(side.angle(), run.angle()) < 12.0 && side.off(m) < 7.0
            })
        };
        let edge = |r: &Round| {
            let d = ((m[0] - r.middle[0]) / r.rx).hypot((m[1] - r.middle[1]) / r.ry);
            (d - 1.0).abs() * r.rx.min(r.ry) < 7.0
        };
        panels.iter().any(side) || rounds.iter().any(edge)
    };
    runs.iter().filter(|r| !along(r)).copied().collect()
}
