//! Edges that nearly agree: too near to be meant apart, too far apart to be in line.

use crate::geometry::{Edge, Span};
use crate::layout::{Layout, LayoutBlock};
use crate::length::Length;
use crate::sketch::Kind;

/// A threshold holds to this, in ticks.
const HAIR: f64 = 0.2;
/// Parts of one block meet at the fold to this.
const AT_FOLD: Length = Length::inches(1, 1000);

/// What counts as nearly in line.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct NearThresholds {
    /// Nearer than this is in line.
    pub from: Length,
    /// Further than this is apart.
    pub to: Length,
}

impl Default for NearThresholds {
    fn default() -> NearThresholds {
        NearThresholds {
            from: Length::inches(1, 32),
            to: Length::inches(3, 16),
        }
    }
}

/// Two edges that nearly agree.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct NearMiss {
    /// Which edge of both.
    pub edge: Edge,
    /// The blocks, by their places in the layout, the lower first.
    pub blocks: (usize, usize),
    /// How far they are apart.
    pub off: Length,
}

/// All near misses of a layout.
pub(super) fn near_misses(layout: &Layout, limits: &NearThresholds) -> Vec<NearMiss> {
    let looked_at: Vec<usize> = (0..layout.blocks.len())
        .filter(|n| has_edges(&layout.blocks[*n]))
        .collect();
    let (from, to) = (limits.from.ticks() as f64, limits.to.ticks() as f64);
    let mut found = Vec::new();
    for (at, &n) in looked_at.iter().enumerate() {
        for &m in &looked_at[at + 1..] {
            let (a, b) = (&layout.blocks[n], &layout.blocks[m]);
            if a.page != b.page {
                continue;
            }
            for edge in Edge::ALL {
                if is_at_fold(layout, n, edge) || is_at_fold(layout, m, edge) {
                    continue;
                }
                let place = |b: &LayoutBlock| visible(layout, b).edge(edge);
                let off = (place(a) - place(b)).abs();
                if off >= from - HAIR && off <= to + HAIR {
                    found.push(NearMiss {
                        edge,
                        blocks: (n, m),
                        off: Length::from_ticks(off.round() as i64),
                    });
                }
            }
        }
    }
    found
}

fn has_edges(block: &LayoutBlock) -> bool {
    block.block.turn == 0.0
        && !matches!(
            block.block.kind,
            Kind::Mat | Kind::Cluster | Kind::Accent | Kind::Wash
        )
}

fn visible(layout: &Layout, block: &LayoutBlock) -> Span {
    Span::from(block.block.rect).cut_to(layout.canvas.span())
}

/// Whether an edge of a block is where the fold cuts it.
fn is_at_fold(layout: &Layout, n: usize, edge: Edge) -> bool {
    let block = &layout.blocks[n];
    let own = match block.page {
        0 => Edge::Right,
        _ => Edge::Left,
    };
    edge == own && other_part(layout, n).is_some()
}

/// The other part of a block that the fold cuts.
pub(super) fn other_part(layout: &Layout, n: usize) -> Option<usize> {
    let block = &layout.blocks[n];
    let fold = layout.canvas.page.w;
    (0..layout.blocks.len()).find(|m| {
        let other = &layout.blocks[*m];
        let (left, right) = if block.page == 0 {
            (block, other)
        } else {
            (other, block)
        };
        let meets = |at: Length| (at - fold).abs() < AT_FOLD;
        !block.from.is_empty()
            && block.from == other.from
            && block.block.kind == other.block.kind
            && block.page != other.page
            && meets(left.block.rect.right())
            && meets(right.block.rect.x)
    })
}
