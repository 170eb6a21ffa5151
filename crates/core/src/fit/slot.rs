//! A photo slot, and what becomes of it.

use super::slot_choice::SlotWay;

/// What becomes of one or several photo slots of a sketch.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Slot {
    /// The sketch's photo blocks that it stands for.
    pub(crate) blocks: Vec<usize>,
    /// What becomes of it.
    pub(crate) way: SlotWay,
}

impl Slot {
    /// How many photos it shows.
    pub(crate) fn shown(&self) -> u32 {
        self.way.shows()
    }

    /// The direction of a row that has become one slot.
    pub(crate) fn along(&self) -> Option<bool> {
        match self.way {
            SlotWay::Cells(cols, 1) if self.blocks.len() > 1 && cols > 1 => Some(true),
            SlotWay::Cells(1, rows) if self.blocks.len() > 1 && rows > 1 => Some(false),
            _ => None,
        }
    }
}
