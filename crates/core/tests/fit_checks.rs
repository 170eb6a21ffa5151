//! The checker of layouts can fail: each of its faults is made on purpose, in a layout that was without one.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod common;

use common::{request, sound};
use metrosk_core::fit::{Fault, Note, Proposal, Request};
use metrosk_core::geometry::Edge;
use metrosk_core::layout::LayoutBlock;
use metrosk_core::length::Length;
use serde_json::{Value, json};

fn sketch() -> Value {
    json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Checked", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [
            {"id": "s1", "kind": "strip", "box": {"x": 0, "y": 9, "w": 12, "h": 1}, "bleed": ["left", "right"]},
            {"id": "m1", "kind": "mat", "box": {"x": 0.875, "y": 1.875, "w": 3.25, "h": 4.25}, "under": "p1"},
            {"id": "p1", "kind": "photo", "box": {"x": 1, "y": 2, "w": 3, "h": 4}},
            {"id": "p2", "kind": "photo", "box": {"x": 7.5, "y": 2, "w": 3, "h": 4}},
            {"id": "t1", "kind": "title", "box": {"x": 1, "y": 7, "w": 3, "h": 1}},
        ],
    })
}

/// A spread of it with two prints, and one place of the title pinned.
fn fitted() -> (Request, Proposal) {
    let more = json!({
        "approach": "stretch", "photos": [{"id": "f1", "w": 4, "h": 6}, {"id": "f2", "w": 4, "h": 6}],
        "pins": [{"block": "t1", "edge": "top", "at": 7.5}],
    });
    let request = request(&sketch(), 0, 2, more);
    let proposal = sound(&request).swap_remove(0);
    (request, proposal)
}

/// The faults once something has been done to the layout.
fn after(harm: impl FnOnce(&mut Proposal)) -> Vec<Fault> {
    let (request, mut proposal) = fitted();
    assert_eq!(proposal.faults(&request), [], "without a fault at first");
    harm(&mut proposal);
    proposal.faults(&request)
}

fn block<'a>(proposal: &'a mut Proposal, id: &str) -> &'a mut LayoutBlock {
    proposal
        .layout
        .blocks
        .iter_mut()
        .find(|b| b.block.id == id)
        .unwrap()
}

fn shift(block: &mut LayoutBlock, right: Length, down: Length) {
    block.block.rect.x = block.block.rect.x + right;
    block.block.rect.y = block.block.rect.y + down;
}

const EIGHTH: Length = Length::inches(1, 8);

#[test]
fn what_lies_in_the_fold_or_its_guard() {
    for into in [Length::inches(0, 1), EIGHTH] {
        // The right edge just short of the fold, within the guard of a quarter inch.
        let found = after(|p| {
            let title = block(p, "t1");
            title.block.rect.x = Length::inches(12, 1) - title.block.rect.w - into;
        });
        assert_eq!(found, [Fault::Fold("t1".into())]);
    }
    let found = after(|p| block(p, "t1").block.rect.x = Length::inches(11, 1));
    assert!(found.contains(&Fault::Fold("t1".into())), "{found:?}");
}

#[test]
fn what_lies_outside_the_margin() {
    let found = after(|p| block(p, "t1").block.rect.x = EIGHTH);
    assert_eq!(found, [Fault::Margin("t1".into())]);
    // What runs off the page may.
    let found = after(|p| shift(block(p, "s1"), Length::ZERO, Length::inches(1, 2)));
    assert_eq!(found, []);
}

#[test]
fn photos_that_overlap() {
    let found = after(|p| {
        let other = block(p, "p1").clone();
        let second = block(p, "p2");
        second.block.rect.x = other.block.rect.x + Length::inches(1, 1);
        second.page = 0;
    });
    assert!(
        found.contains(&Fault::PhotosOverlap("p1".into(), "p2".into())),
        "{found:?}"
    );
}

#[test]
fn a_mat_that_does_not_show() {
    let found = after(|p| shift(block(p, "m1"), EIGHTH, Length::ZERO));
    assert_eq!(found, [Fault::MatHidden("m1".into(), Edge::Left)]);
    let found = after(|p| shift(block(p, "m1"), Length::ZERO, Length::ZERO - EIGHTH));
    assert_eq!(found, [Fault::MatHidden("m1".into(), Edge::Bottom)]);
}

#[test]
fn prints_used_twice_left_out_or_at_another_size() {
    let found = after(|p| block(p, "p2").placement.as_mut().unwrap().photo = "f1".into());
    assert!(
        found.contains(&Fault::Print("f1".into(), 2))
            && found.contains(&Fault::Print("f2".into(), 0)),
        "{found:?}"
    );
    // The print shows less than its slot has room for: it would have to be enlarged.
    let found = after(|p| block(p, "p2").placement.as_mut().unwrap().crop.w *= 0.8);
    assert_eq!(found, [Fault::PrintSize("p2".into())]);
}

#[test]
fn too_few_photos_and_blocks_without_a_place() {
    let found = after(|p| {
        p.layout.blocks.retain(|b| b.block.id != "p2");
        p.notes.retain(|n| !n.explains_absence_of("p2"));
    });
    assert!(
        found.contains(&Fault::PhotoCount(1, 2)) && found.contains(&Fault::Missing("p2".into())),
        "{found:?}"
    );
    // A note that explains it takes the fault away; one that only names it, or explains another, does not.
    let said = |note: Note| {
        after(|p| {
            p.layout
                .blocks
                .retain(|b| b.block.id != "s1" && b.from != ["s1"]);
            p.notes.push(note);
        })
    };
    let elsewhere = |id: &str| Note::OnOtherPage {
        blocks: vec![id.into()],
    };
    assert_eq!(said(elsewhere("s1")), []);
    assert_eq!(said(elsewhere("s10")), [Fault::Missing("s1".into())]);
    assert_eq!(
        said(Note::StaysOne {
            block: "strip s1".into()
        }),
        [Fault::Missing("s1".into())]
    );
}

#[test]
fn two_blocks_of_one_id_are_a_fault_without_prints_too() {
    let base = request(&sketch(), 0, 1, json!({}));
    let mut proposal = sound(&base).swap_remove(0);
    let first = proposal.layout.blocks[0].block.id.clone();
    proposal.layout.blocks[1].block.id = first.clone();
    assert!(proposal.faults(&base).contains(&Fault::Name(first)));
}

#[test]
fn a_pin_that_is_not_met() {
    let found = after(|p| shift(block(p, "t1"), Length::ZERO, EIGHTH));
    assert_eq!(found, [Fault::Pin(0)]);
}

#[test]
fn a_bleed_that_stops_short() {
    let found = after(|p| {
        let strip = block(p, "s1");
        strip.block.rect.x = EIGHTH;
        strip.block.rect.w = strip.block.rect.w - EIGHTH;
    });
    assert_eq!(found, [Fault::Bleed("s1".into(), Edge::Left)]);
}

#[test]
fn a_block_on_the_wrong_page_or_uncut() {
    let found = after(|p| block(p, "t1").page = 1);
    assert_eq!(found, [Fault::Page("t1".into())]);
    let found = after(|p| {
        p.layout.blocks.retain(|b| b.block.id != "s1b");
        block(p, "s1").block.rect.w = Length::inches(24, 1);
    });
    assert_eq!(found, [Fault::Page("s1".into())]);
}

#[test]
fn two_blocks_of_one_id() {
    let found = after(|p| block(p, "s1b").block.id = "s1".into());
    assert_eq!(found, [Fault::Name("s1".into())]);
}
