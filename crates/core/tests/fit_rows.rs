//! Rows stay rows where photos come or go, a page said twice is its own image, crowded sketches keep their order.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::Proposal;
use metrosk_core::geometry::Span;
use metrosk_core::layout::LayoutBlock;
use metrosk_core::sketch::Kind;
use serde_json::{Value, json};

fn sketch(blocks: &[Value]) -> Value {
    json!({"format": "metrosk-sketch/1", "unit": "in", "name": "Rows", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": blocks})
}

/// Three level photos so far apart, and a title.
fn row(gap: f64) -> Value {
    let photo = |n: u32| json!({"id": format!("p{n}"), "kind": "photo", "box": {"x": 0.5 + f64::from(n) * (3.25 + gap), "y": 4, "w": 3.25, "h": 2.5}});
    sketch(&[
        photo(0),
        photo(1),
        photo(2),
        json!({"id": "t1", "kind": "title", "box": {"x": 2, "y": 1.5, "w": 7, "h": 1.5}}),
    ])
}

fn with_count(sketch: &Value, count: usize) -> Proposal {
    sound(&request(sketch, 0, 1, json!({"photos": {"count": count}}))).swap_remove(0)
}

fn photos(proposal: &Proposal) -> Vec<Span> {
    let mut found: Vec<Span> = proposal
        .layout
        .blocks
        .iter()
        .filter(|b| b.block.kind == Kind::Photo)
        .map(LayoutBlock::extent)
        .collect();
    found.sort_by(|a, b| a.l.total_cmp(&b.l));
    found
}

fn assert_a_row(photos: &[Span], gap: f64) {
    for pair in photos.windows(2) {
        assert!(
            (pair[0].t - pair[1].t).abs() < 2.0 && (pair[0].w() - pair[1].w()).abs() < 2.0,
            "{photos:?}"
        );
        assert!(
            (pair[1].l - pair[0].r - gap * 203_200.0).abs() < 2.0,
            "{photos:?}"
        );
    }
}

#[test]
fn a_row_is_lengthened_and_shortened_within_its_place() {
    for (count, gap) in [(4, 0.25), (2, 0.25), (4, 0.0), (2, 0.0)] {
        let proposal = with_count(&row(gap), count);
        let found = photos(&proposal);
        assert_eq!(found.len(), count);
        assert_a_row(&found, gap);
        assert!(
            proposal
                .sentences()
                .iter()
                .any(|n| n.starts_with(&format!("Photos p0, p1 and p2 become a row of {count}"))),
            "{:?}",
            proposal.sentences()
        );
    }
}

#[test]
fn a_shortened_row_is_shortened_again_before_a_photo_becomes_writing() {
    let found = photos(&with_count(&row(0.25), 1));
    assert_eq!(found.len(), 1);
    assert!(
        found[0].w() > 9.0 * 203_200.0,
        "one photo in the row's place: {found:?}"
    );
}

#[test]
fn photos_with_mats_of_their_own_are_no_row() {
    let mut blocks = Vec::new();
    for n in 0..3 {
        let x = 0.75 + f64::from(n) * 3.75;
        blocks
            .push(json!({"id": format!("m{n}"), "kind": "mat", "box": {"x": x - 0.125, "y": 3.875, "w": 3.25, "h": 2.75}, "under": format!("p{n}")}));
        blocks.push(json!({"id": format!("p{n}"), "kind": "photo", "box": {"x": x, "y": 4, "w": 3, "h": 2.5}}));
    }
    let proposal = with_count(&sketch(&blocks), 4);
    assert_eq!(
        proposal
            .layout
            .blocks
            .iter()
            .filter(|b| b.block.kind == Kind::Mat)
            .count(),
        3
    );
    assert!(
        !proposal
            .sentences()
            .iter()
            .any(|n| n.contains("become a row")),
        "{:?}",
        proposal.sentences()
    );
}

#[test]
fn a_mirrored_page_is_an_image_to_the_tick_and_an_echo_a_copy() {
    let drawn = metrosk_demo::crowd().to_json();
    for approach in ["mirror", "echo"] {
        let proposal = sound(&request(&drawn, 0, 2, json!({"approach": approach}))).swap_remove(0);
        let spread = 24.0 * 203_200.0;
        let (left, right): (Vec<&LayoutBlock>, Vec<&LayoutBlock>) =
            proposal.layout.blocks.iter().partition(|b| b.page == 0);
        assert_eq!(left.len(), right.len(), "{approach}");
        for block in left {
            let own = block.extent();
            let wanted = if approach == "mirror" {
                spread - own.r
            } else {
                own.l + spread / 2.0
            };
            let is_it = |b: &&&LayoutBlock| {
                b.from == block.from
                    && b.block.kind == block.block.kind
                    && (b.extent().l - wanted).abs() < 1.0
            };
            let image = right
                .iter()
                .find(is_it)
                .unwrap_or_else(|| panic!("{approach}: no image of {}", block.block.id));
            assert_eq!(
                (image.block.rect.y, image.block.rect.w, image.block.rect.h),
                (block.block.rect.y, block.block.rect.w, block.block.rect.h)
            );
        }
    }
}

#[test]
fn a_crowd_keeps_every_order_and_line() {
    let kinds = ["photo", "paper", "accent", "title", "journal"];
    let block = |n: usize| {
        let (x, y) = (0.5 + (n % 8) as f64 * 1.375, 0.5 + (n / 8) as f64 * 1.375);
        json!({"id": format!("b{n}"), "kind": kinds[n * 3 % 5], "box": {"x": x, "y": y, "w": 1.125, "h": 1}})
    };
    let crowd = sketch(&(0..64).map(block).collect::<Vec<Value>>());
    for (page, pages) in [(1, 1), (0, 2), (4, 1)] {
        for proposal in sound(&request(&crowd, page, pages, json!({}))) {
            let m = &proposal.measures;
            assert_eq!(
                (m.relations.share(), m.alignments.share()),
                (1.0, 1.0),
                "{} on {page}",
                proposal.approach.name()
            );
            assert!(
                m.drift_max < 0.03,
                "{} on {page}: {}",
                proposal.approach.name(),
                m.drift_max
            );
        }
    }
}

#[test]
fn of_three_the_two_without_a_mat_become_one() {
    let photo = |id: &str, y: f64| json!({"id": id, "kind": "photo", "box": {"x": 1, "y": y, "w": 3.5, "h": 2.5}});
    let mat = json!({"id": "m1", "kind": "mat", "box": {"x": 0.875, "y": 0.875, "w": 3.75, "h": 2.75}, "under": "p1"});
    let column = sketch(&[mat, photo("p1", 1.0), photo("p2", 3.75), photo("p3", 6.5)]);
    let proposal = with_count(&column, 2);
    let merged = proposal
        .layout
        .blocks
        .iter()
        .find(|b| b.from.len() > 1)
        .unwrap();
    assert_eq!(
        merged.from,
        ["p2", "p3"],
        "the matted photo keeps its mat and its place"
    );
    assert!(
        proposal.measures.drift_max < 0.02,
        "{}",
        proposal.measures.drift_max
    );
}
