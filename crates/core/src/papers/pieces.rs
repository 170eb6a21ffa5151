//! What shows of each piece of paper, and what of it is cut.

use super::cut_size::{Surroundings, rectangle_to_cut};
use super::laid::{Laid, Page, pages};
use super::piecing::{CutSize, Gutting, Piece, Pieces, Piecing, Tucked};
use crate::geometry::{Region, Span, largest_free_rectangle};
use crate::length::Length;

/// Separate parts no larger than 1/100 square inch are taken as covered, in square ticks.
const SPECK: f64 = 203_200.0 * 203_200.0 / 100.0;

impl Piecing {
    /// Pieces the layout.
    #[must_use]
    pub fn pieces(&self) -> Pieces {
        let mut found = Pieces::default();
        for page in pages(self) {
            for (n, laid) in page.laid.iter().enumerate() {
                let Some(paper) = laid.paper else {
                    continue;
                };
                match self.piece(&page, n, laid, paper) {
                    Some(piece) => found.pieces.push(piece),
                    None => found.not_needed.push(laid.id.clone()),
                }
            }
        }
        found
    }

    /// One piece; none when nothing of it shows.
    fn piece(&self, page: &Page<'_>, n: usize, laid: &Laid<'_>, paper: &str) -> Option<Piece> {
        // The units of one block don't cover one another.
        let covers: Vec<&Laid> = page.laid[n + 1..]
            .iter()
            .filter(|c| c.covers && c.block != laid.block && c.bounds.overlaps(page.span, 0.0))
            .collect();
        let (shows, specks) = what_shows(laid, page.span, &covers);
        let bounds = shows.bounds()?;
        let in_own_frame = shows.clone().turned(-laid.turn, laid.about);
        let own = in_own_frame.bounds()?;
        let placed = laid.block.map(|b| &self.layout.blocks[b]);
        let block = placed.map_or(laid.id.as_str(), |b| b.block.id.as_str());
        let around = Surroundings {
            page: page.span,
            covers: &covers,
            tuck: self.tuck_of(block),
            size: placed.map_or(CutSize::Whole, |_| self.cut_of(block)),
        };
        let cut = rectangle_to_cut(laid, own, &around);
        let gut = self.gut.as_ref().filter(|g| g.from.contains(&laid.id));
        let is_of_strips = self.of_strips.contains(block);
        let [hole, hidden] = [gut, is_of_strips.then_some(&ALL_THAT_IS_HIDDEN)].map(|g| {
            g.filter(|_| laid.is_upright_rect)
                .and_then(|g| hole(g, cut, &shows, &specks, &covers))
        });
        Some(Piece {
            id: laid.id.clone(),
            block: block.to_owned(),
            paper: paper.to_owned(),
            page: placed.map_or(u8::from(page.span.l > 0.0), |b| b.page),
            turn: laid.turn,
            shows: bounds,
            area: shows.area(),
            parts: parts_of(&in_own_frame),
            cut,
            tucked: Tucked {
                left: own.l - cut.l,
                right: cut.r - own.r,
                top: own.t - cut.t,
                bottom: cut.b - own.b,
            },
            hole,
            hidden,
        })
    }
}

/// The box and the area of each separate part.
fn parts_of(shows: &Region) -> Vec<(Span, f64)> {
    let parts = shows.parts().iter().cloned().map(Region::of_part);
    parts
        .filter_map(|p| Some((p.bounds()?, p.area())))
        .collect()
}

/// What asks for all that is hidden: no margin, no bars.
const ALL_THAT_IS_HIDDEN: Gutting = Gutting {
    margin: Length::ZERO,
    bar: Length::ZERO,
    least: Length::inches(1, 2),
    from: std::collections::BTreeSet::new(),
};

/// What of a piece lies on its page and under no cover, and the specks that are taken as covered.
fn what_shows(laid: &Laid<'_>, page: Span, covers: &[&Laid<'_>]) -> (Region, Region) {
    let on_page = if laid.bounds.is_in(page, 0.0) {
        laid.outline.clone()
    } else {
        laid.outline.within_also(&Region::from(page))
    };
    let near = covers
        .iter()
        .filter(|c| c.bounds.overlaps(laid.bounds, 0.0))
        .map(|c| &c.outline);
    on_page.without(near).split_by_area(SPECK)
}

/// The largest rectangle of a cut that lies wholly under covers, away from what shows and from the cut's sides.
fn hole(
    gut: &Gutting,
    cut: Span,
    shows: &Region,
    specks: &Region,
    covers: &[&Laid<'_>],
) -> Option<Span> {
    let ticks = |l: Length| l.ticks() as f64;
    let bar = ticks(gut.bar);
    let window = Span {
        l: cut.l + bar,
        t: cut.t + bar,
        r: cut.r - bar,
        b: cut.b - bar,
    };
    if window.w() <= 0.0 || window.h() <= 0.0 {
        return None;
    }
    let under = covers.iter().map(|c| &c.outline).chain([specks]);
    let uncovered = Region::from(window).without(under);
    let blocked = Region::union([&uncovered, &shows.grown(ticks(gut.margin))]);
    largest_free_rectangle(window, &blocked, ticks(gut.least))
}
