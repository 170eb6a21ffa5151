//! The cutting machine.

use crate::{OrderId, PortError, Progress};
use async_trait::async_trait;
use metrosk_core::geometry::Size;
use metrosk_core::length::Length;

/// Cuts outlines out of a sheet that lies on its mat.
#[async_trait]
pub trait Cutter: Send + Sync {
    /// The largest sheet that it takes.
    async fn mat(&self) -> Result<Size, PortError>;

    /// Cuts an order. One that was cut before under the same id is not cut again: the sheet is gone.
    ///
    /// # Errors
    /// When it does not answer, the sheet is larger than its mat, or the order was cancelled before the blade came down.
    async fn cut(&self, order: &CutOrder, progress: &dyn Progress) -> Result<(), PortError>;
}

/// What is cut out of one sheet.
#[derive(Clone, Debug)]
pub struct CutOrder {
    /// Its id.
    pub id: OrderId,
    /// What the maker calls the sheet.
    pub sheet: String,
    /// The sheet's size.
    pub size: Size,
    /// The outlines, inner ones before those around them.
    pub paths: Vec<CutPath>,
}

/// A closed outline, as corners from the sheet's left top corner; the last one is joined to the first.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CutPath {
    /// The piece that it cuts.
    pub piece: String,
    /// Right and down.
    pub corners: Vec<(Length, Length)>,
}
