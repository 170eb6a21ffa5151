//! The cutting machine.

use crate::{OrderId, PortError, Progress};
use async_trait::async_trait;
use metrosk_core::geometry::Size;

/// Cuts outlines out of a sheet that lies on its mat.
#[async_trait]
pub trait Cutter: Send + Sync {
    /// The largest sheet that it takes.
    async fn mat(&self) -> Result<Size, PortError>;

    /// Cuts an order. What of it was cut before under the same id is not cut again: the blade goes on where it stopped.
    ///
    /// # Errors
    /// When it does not answer, the sheet is larger than its mat, an outline can't be cut, somebody has to see to it, or the order was cancelled.
    async fn cut(&self, order: &CutOrder, progress: &dyn Progress) -> Result<(), PortError>;
}

/// What is cut out of one sheet.
#[derive(Clone, Debug)]
pub struct CutOrder {
    /// Its id.
    pub id: OrderId,
    /// What the maker calls the sheet.
    pub sheet: String,
    /// The sheet with its outlines in real units, inner ones before those around them.
    pub svg: String,
}
