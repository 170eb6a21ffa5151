//! Embellishment clusters: knots of small curved faces.

use crate::plane::{Mask, Part, Parts};
use crate::strokes::Run;
use crate::writing::{Extent, groups};

/// The widest face inside a cluster.
const WIDEST: usize = 120;

/// Pixels along long straight runs.
pub(crate) fn straight(mask: &Mask, runs: &[Run], least: f64) -> Mask {
    let mut out = Mask {
        w: mask.w,
        h: mask.h,
        data: vec![false; mask.data.len()],
    };
    for run in runs.iter().filter(|r| r.length() >= least) {
        let n = run.length().ceil() as i32;
        for i in 0..=n {
            let t = f64::from(i) / f64::from(n);
            let (x, y) = (
                (run.a[0] + (run.b[0] - run.a[0]) * t) as i32,
                (run.a[1] + (run.b[1] - run.a[1]) * t) as i32,
            );
            for (dx, dy) in (-3..=3).flat_map(|dx| (-3..=3).map(move |dy| (dx, dy))) {
                if mask.get(x + dx, y + dy) {
                    out.data[(y + dy) as usize * mask.w + (x + dx) as usize] = true;
                }
            }
        }
    }
    out
}

/// The clusters' extents.
pub(crate) fn find(mask: &Mask, runs: &[Run]) -> Vec<Extent> {
    let straight = straight(mask, runs, 70.0);
    let faces = mask.not().connected_components(false);
    let small: Vec<(u32, Part)> = faces
        .each()
        .filter(|(_, p)| is_small(p))
        .filter(|(l, p)| curved(&faces, *l, p, mask, &straight))
        .collect();
    let linked = |a: &(u32, Part), b: &(u32, Part)| {
        let (a, b) = (Extent::of(&a.1), Extent::of(&b.1));
        let x = (a.x0.max(b.x0) - a.x1.min(b.x1)).max(0.0);
        let y = (a.y0.max(b.y0) - a.y1.min(b.y1)).max(0.0);
        x.max(y) <= 9.0
    };
    groups(&small, linked)
        .into_iter()
        .filter(|g| g.len() >= 3)
        .filter_map(|g| {
            let e = g
                .iter()
                .map(|(_, p)| Extent::of(p))
                .reduce(|a, b| a.with(&b))?
                .grown(1.5);
            let (long, short) = (e.w().max(e.h()), e.w().min(e.h()));
            (short >= 30.0 && long <= 360.0 && long < 3.0 * short).then_some(e)
        })
        .collect()
}

fn is_small(p: &Part) -> bool {
    let (w, h) = (p.w(), p.h());
    w.max(h) <= WIDEST
        && p.area >= 14
        && w.min(h) >= 3
        && p.area * 100 > w * h * 22
        && w.max(h) <= 7 * w.min(h)
}

/// Whether most of the ink round a face lies on no long straight run.
fn curved(faces: &Parts, label: u32, p: &Part, mask: &Mask, straight: &Mask) -> bool {
    let (mut ink, mut along) = (0, 0);
    for y in p.y0.saturating_sub(2)..(p.y1 + 3).min(mask.h) {
        for x in p.x0.saturating_sub(2)..(p.x1 + 3).min(mask.w) {
            if !mask.at(x, y) {
                continue;
            }
            let beside = (-1..=1).any(|dy: i32| {
                (-1..=1).any(|dx: i32| {
                    let (nx, ny) = (x as i32 + dx, y as i32 + dy);
                    nx >= 0
                        && ny >= 0
                        && (nx as usize) < mask.w
                        && (ny as usize) < mask.h
                        && faces.label(nx as usize, ny as usize) == label
                })
            });
            if beside {
                ink += 1;
                along += usize::from(straight.at(x, y));
            }
        }
    }
    ink > 0 && along * 100 < ink * 52
}
