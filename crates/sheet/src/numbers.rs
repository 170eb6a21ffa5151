//! Blocks are numbered as on the sketch card: a block's place in the sketch, from 1; further parts get letters.

use crate::Subject;
use metrosk_core::layout::{LayoutBlock, PartId};

/// A layout's block with its number.
#[derive(Clone, Debug)]
pub struct Numbered<'a> {
    /// The block.
    pub block: &'a LayoutBlock,
    /// `8`, `8b`, or `+` for one that the sketch does not have.
    pub number: String,
    /// For sorting: the sketch block's place, then the part's.
    pub order: (usize, usize),
}

/// A layout's blocks, in the layout's order, with their numbers.
pub fn numbered<'a>(subject: &Subject<'a>) -> Vec<Numbered<'a>> {
    let layout = subject.layout;
    let one = |(block, id): (&'a LayoutBlock, PartId<'_>)| match subject.sketch.index_of(id.block) {
        Some(at) => Numbered {
            block,
            number: format!("{}{}", at + 1, letter(id.part)),
            order: (at, id.part),
        },
        None => Numbered {
            block,
            number: "+".to_owned(),
            order: (usize::MAX, 0),
        },
    };
    layout
        .blocks
        .iter()
        .zip(layout.identities())
        .map(one)
        .collect()
}

/// Nothing for the first part, then b to z, then numbers.
fn letter(part: usize) -> String {
    match part {
        0 => String::new(),
        1..=25 => char::from(b'a' + part as u8).to_string(),
        _ => format!("-{}", part + 1),
    }
}
