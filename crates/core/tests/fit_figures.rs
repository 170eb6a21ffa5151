//! The demo's sketches on all page sizes: no fault, and the figures a fit is held to.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{PAGES, request, sound};
use metrosk_core::fit::{Measures, Proposal};
use metrosk_core::length::Unit;
use serde_json::json;

/// Sums over several fits.
#[derive(Default, Debug)]
struct Sums {
    fits: usize,
    drift: f64,
    shape: f64,
    lines: (usize, usize),
    relations: (usize, usize),
    contacts: (usize, usize),
}

impl Sums {
    fn add(&mut self, m: &Measures) {
        self.fits += 1;
        self.drift += m.drift_mean;
        self.shape += m.slot_shape;
        self.lines = (
            self.lines.0 + m.alignments.kept,
            self.lines.1 + m.alignments.of,
        );
        self.relations = (
            self.relations.0 + m.relations.kept,
            self.relations.1 + m.relations.of,
        );
        self.contacts = (
            self.contacts.0 + m.contacts.kept,
            self.contacts.1 + m.contacts.of,
        );
    }

    fn share((kept, of): (usize, usize)) -> f64 {
        if of == 0 {
            1.0
        } else {
            kept as f64 / of as f64
        }
    }
}

fn first(
    sketch: &metrosk_core::sketch::Sketch,
    page: usize,
    pages: u8,
    more: serde_json::Value,
) -> Proposal {
    sound(&request(&sketch.to_json(), page, pages, more)).swap_remove(0)
}

#[test]
fn the_demo_fits_every_page_within_the_figures() {
    let (mut same, mut other, mut spread, mut merged) = (
        Sums::default(),
        Sums::default(),
        Sums::default(),
        Sums::default(),
    );
    for sketch in metrosk_demo::sketches(metrosk_demo::SEED) {
        let from = sketch.canvas.pages;
        let own = sketch.canvas.page.w.ticks() as f64 / sketch.canvas.page.h.ticks() as f64;
        for (page, size) in PAGES.iter().enumerate() {
            for to in [1, 2] {
                let proposal = first(&sketch, page, to, json!({}));
                let shape = size.2 / size.3;
                let sums = if from > to {
                    &mut merged
                } else if from < to {
                    &mut spread
                } else if (shape / own - 1.0).abs() < 0.01 {
                    &mut same
                } else {
                    &mut other
                };
                sums.add(&proposal.measures);
            }
        }
    }
    for (name, sums, fits, drift, lines, relations, contacts, shape) in [
        ("same", &same, 16, 0.002, 1.0, 1.0, 1.0, 0.01),
        ("other", &other, 38, 0.012, 1.0, 1.0, 1.0, 0.04),
        ("spread", &spread, 48, 0.024, 0.99, 1.0, 1.0, 0.05),
        ("merged", &merged, 6, 0.015, 1.0, 1.0, 1.0, 0.12),
    ] {
        let n = sums.fits as f64;
        assert_eq!(sums.fits, fits, "{name}");
        assert!(sums.drift / n <= drift, "{name}: drift {}", sums.drift / n);
        assert!(Sums::share(sums.lines) >= lines, "{name}: {sums:?}");
        assert!(Sums::share(sums.relations) >= relations, "{name}: {sums:?}");
        assert!(Sums::share(sums.contacts) >= contacts, "{name}: {sums:?}");
        assert!(
            sums.shape / n <= shape,
            "{name}: slot shape {}",
            sums.shape / n
        );
    }
}

#[test]
fn a_sketch_on_its_own_page_stays_as_it_is() {
    for sketch in metrosk_demo::sketches(metrosk_demo::SEED) {
        let own = sketch.canvas.page;
        let side = |length: metrosk_core::length::Length, unit: &str| {
            length.to_units(if unit == "in" {
                Unit::Inch
            } else {
                Unit::Millimetre
            })
        };
        let page = PAGES
            .iter()
            .position(|(_, unit, w, h, ..)| (side(own.w, unit), side(own.h, unit)) == (*w, *h))
            .unwrap();
        // On a ruler of 1/16 in every block of the demo's is where it is drawn.
        let proposal = first(
            &sketch,
            page,
            sketch.canvas.pages,
            json!({"approach": "scale", "snap": 0.0625}),
        );
        assert!(
            proposal.measures.drift_max < 1e-9,
            "{}: {}",
            sketch.name,
            proposal.measures.drift_max
        );
        for block in &proposal.layout.blocks {
            let drawn = sketch
                .blocks
                .iter()
                .find(|b| block.from == [b.id.clone()])
                .unwrap();
            if block.whole.is_none()
                && block.from == [block.block.id.clone()]
                && drawn.bleed.is_empty()
            {
                assert_eq!(block.block.rect, drawn.rect, "{} {}", sketch.name, drawn.id);
            }
        }
    }
}

#[test]
fn mats_keep_their_borders_whatever_the_page() {
    let sketch = &metrosk_demo::sketches(metrosk_demo::SEED)[0];
    for (page, border) in [(0, 25_400), (2, 25_400), (3, 25_400), (4, 24_000)] {
        let layout = first(sketch, page, 1, json!({})).layout;
        let of = |id: &str| {
            layout
                .blocks
                .iter()
                .find(|b| b.block.id == id)
                .unwrap()
                .block
                .rect
        };
        let (mat, photo) = (of("m1"), of("p1"));
        for found in [
            photo.x - mat.x,
            photo.y - mat.y,
            mat.right() - photo.right(),
            mat.bottom() - photo.bottom(),
        ] {
            assert_eq!(found.ticks(), border, "{}", PAGES[page].0);
        }
    }
}

#[test]
fn rings_stay_round_and_grid_units_keep_their_shape() {
    let sketches = metrosk_demo::sketches(metrosk_demo::SEED);
    for (page, size) in PAGES.iter().enumerate() {
        let layout = first(&sketches[2], page, 1, json!({"approach": "scale"})).layout;
        let ring = layout
            .blocks
            .iter()
            .find(|b| b.block.id == "r1")
            .unwrap()
            .block
            .rect;
        assert_eq!(ring.w, ring.h, "{}", size.0);
        let layout = first(&sketches[1], page, 1, json!({"approach": "scale"})).layout;
        let grid = layout.blocks.iter().find(|b| b.block.id == "g1").unwrap();
        let units = grid.block.grid.unwrap();
        let aspect = grid.block.rect.w.ticks() as f64
            / f64::from(units.cols)
            / (grid.block.rect.h.ticks() as f64 / f64::from(units.rows));
        metrosk_testkit::assert_near(aspect, 1.0, 0.06);
    }
}
