//! How far reading is, and stopping it.

/// The stages of reading, in order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stage {
    /// Looking for the page in the picture.
    Page,
    /// Bringing it upright.
    Upright,
    /// Telling writing and strokes apart.
    Strokes,
    /// Finding the blocks. Told several times.
    Blocks,
    /// Telling kinds and stacking.
    Kinds,
}

impl Stage {
    /// The stage's name in documents and events.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Stage::Page => "page",
            Stage::Upright => "upright",
            Stage::Strokes => "strokes",
            Stage::Blocks => "blocks",
            Stage::Kinds => "kinds",
        }
    }
}

/// Whoever asked does not want the answer any more.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Stopped;

pub(crate) fn step(go_on: &dyn Fn(Stage) -> bool, stage: Stage) -> Result<(), Stopped> {
    if go_on(stage) { Ok(()) } else { Err(Stopped) }
}
