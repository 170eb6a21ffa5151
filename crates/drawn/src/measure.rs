//! How much of a drawn sketch was read: blocks found where they are, and read where there are some.

use metrosk_core::geometry::Span;
use metrosk_core::sketch::{Block, Sketch};

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

/// Compares what was drawn with what was read, at an overlap of bounds, best pairs first.
#[must_use]
pub fn compare(drawn: &Sketch, read: &Sketch, least: f64) -> Found {
    let mut pairs: Vec<(f64, usize, usize)> = Vec::new();
    for (i, a) in drawn.blocks.iter().enumerate() {
        for (j, b) in read.blocks.iter().enumerate() {
            let shared = overlap(within(a, drawn), within(b, read));
            if shared >= least {
                // Among equals the one of the same kind is meant.
                let same = if a.kind == b.kind { 0.05 } else { 0.0 };
                pairs.push((shared + same, i, j));
            }
        }
    }
    pairs.sort_by(|a, b| b.0.total_cmp(&a.0));
    let (mut used, mut taken) = (
        vec![false; drawn.blocks.len()],
        vec![false; read.blocks.len()],
    );
    let mut found = Found {
        drawn: drawn.blocks.len(),
        read: read.blocks.len(),
        ..Found::default()
    };
    for (_, i, j) in pairs {
        if !used[i] && !taken[j] {
            (used[i], taken[j]) = (true, true);
            found.agree += 1;
            found.kind += usize::from(drawn.blocks[i].kind == read.blocks[j].kind);
        }
    }
    found
}
