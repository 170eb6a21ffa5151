//! How much of a drawn sketch was read: blocks found where they are, and read where there are some.

use metrosk_core::geometry::Span;
use metrosk_core::sketch::{Block, Kind, Sketch};

/// What was found of a sketch.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Found {
    /// Blocks that were drawn.
    pub drawn: usize,
    /// Blocks that were read.
    pub read: usize,
    /// Those of both that agree in place, one to one.
    pub agree: usize,
    /// Those of these that agree in kind as well.
    pub kind: usize,
}

impl Found {
    /// Both together.
    #[must_use]
    pub fn and(self, other: Found) -> Found {
        Found {
            drawn: self.drawn + other.drawn,
            read: self.read + other.read,
            agree: self.agree + other.agree,
            kind: self.kind + other.kind,
        }
    }

    /// Of what was drawn, the share that was found.
    #[must_use]
    pub fn recall(self) -> f64 {
        self.agree as f64 / self.drawn.max(1) as f64
    }

    /// Of what was read, the share that was drawn.
    #[must_use]
    pub fn precision(self) -> f64 {
        self.agree as f64 / self.read.max(1) as f64
    }
}

/// A block's bounds within its canvas.
fn within(block: &Block, sketch: &Sketch) -> Span {
    let (s, c) = (block.true_bounds(), &sketch.canvas);
    let (w, h) = (c.width().ticks() as f64, c.page.h.ticks() as f64);
    Span {
        l: s.l.clamp(0.0, w),
        t: s.t.clamp(0.0, h),
        r: s.r.clamp(0.0, w),
        b: s.b.clamp(0.0, h),
    }
}

/// Shared area over joint area.
fn overlap(a: Span, b: Span) -> f64 {
    let common = (a.r.min(b.r) - a.l.max(b.l)).max(0.0) * (a.b.min(b.b) - a.t.max(b.t)).max(0.0);
    let joint = a.w() * a.h() + b.w() * b.h() - common;
    if joint > 0.0 { common / joint } else { 0.0 }
}

/// What was read as one grid of equal units, as the units: no drawn sketch here has grids, and each of their photos is meant.
fn singly(read: &Sketch) -> Vec<(Span, Kind, usize)> {
    let mut all = Vec::new();
    for (n, block) in read.blocks.iter().enumerate() {
        let Some(grid) = block.grid else {
            all.push((within(block, read), block.kind, n));
            continue;
        };
        let whole = within(block, read);
        let gap = grid.gap.ticks() as f64;
        let size = |of: f64, count: u32| (of - gap * f64::from(count - 1)) / f64::from(count);
        let (w, h) = (size(whole.w(), grid.cols), size(whole.h(), grid.rows));
        for unit in 0..grid.cols * grid.rows {
            let l = whole.l + f64::from(unit % grid.cols) * (w + gap);
            let t = whole.t + f64::from(unit / grid.cols) * (h + gap);
            let unit = Span {
                l,
                t,
                r: l + w,
                b: t + h,
            };
            all.push((unit, Kind::Photo, n));
        }
    }
    all
}

/// Compares what was drawn with what was read, at an overlap of bounds, best pairs first.
#[must_use]
pub fn compare(drawn: &Sketch, read: &Sketch, least: f64) -> Found {
    matched(drawn, read, least).0
}

/// For each block that was read whether it is one that was drawn, in place at an overlap and in kind; a grid when most of its units are.
#[must_use]
pub fn right(drawn: &Sketch, read: &Sketch, least: f64) -> Vec<bool> {
    let mut units = vec![(0, 0); read.blocks.len()];
    let (_, agree) = matched(drawn, read, least);
    for (n, is_right) in agree {
        units[n].0 += usize::from(is_right);
        units[n].1 += 1;
    }
    units.iter().map(|(right, of)| 2 * right > *of).collect()
}

/// How much agrees; and for each thing read which block it is of, and whether it is right.
fn matched(drawn: &Sketch, read: &Sketch, least: f64) -> (Found, Vec<(usize, bool)>) {
    let things = singly(read);
    let mut pairs: Vec<(f64, usize, usize)> = Vec::new();
    for (i, a) in drawn.blocks.iter().enumerate() {
        for (j, (span, kind, _)) in things.iter().enumerate() {
            let shared = overlap(within(a, drawn), *span);
            if shared >= least {
                // Among equals the one of the same kind is meant.
                let same = if a.kind == *kind { 0.05 } else { 0.0 };
                pairs.push((shared + same, i, j));
            }
        }
    }
    pairs.sort_by(|a, b| b.0.total_cmp(&a.0));
    let mut used = vec![false; drawn.blocks.len()];
    let mut taken: Vec<Option<bool>> = vec![None; things.len()];
    for (_, i, j) in pairs {
        if !used[i] && taken[j].is_none() {
            used[i] = true;
            taken[j] = Some(is_kind(drawn.blocks[i].kind, things[j].1));
        }
    }
    let found = Found {
        drawn: drawn.blocks.len(),
        read: things.len(),
        agree: taken.iter().flatten().count(),
        kind: taken.iter().flatten().filter(|same| **same).count(),
    };
    let each = things.iter().zip(&taken);
    let each = each.map(|((_, _, n), same)| (*n, same.unwrap_or(false)));
    (found, each.collect())
}

/// A wide strip is as well called a paper.
fn is_kind(drawn: Kind, read: Kind) -> bool {
    let flat = |k: Kind| matches!(k, Kind::Paper | Kind::Strip);
    drawn == read || flat(drawn) && flat(read)
}
