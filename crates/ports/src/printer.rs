//! The photo printer.

use crate::{OrderId, PortError, Progress};
use async_trait::async_trait;
use metrosk_core::geometry::Size;
use metrosk_core::length::Length;

/// Prints photos on paper at their true size.
#[async_trait]
pub trait Printer: Send + Sync {
    /// The sizes of paper that it takes, width by height.
    async fn papers(&self) -> Result<Vec<Size>, PortError>;

    /// Prints an order. One that was printed before under the same id is not printed again.
    ///
    /// # Errors
    /// When it does not answer, has no such paper, or the order was cancelled.
    async fn print(&self, order: &PrintOrder, progress: &dyn Progress) -> Result<(), PortError>;
}

/// Photos to be printed together.
#[derive(Clone, Debug)]
pub struct PrintOrder {
    /// Its id.
    pub id: OrderId,
    /// The photos, in the order in which they come out.
    pub prints: Vec<Print>,
}

/// One photo.
#[derive(Clone, Debug)]
pub struct Print {
    /// What the maker calls it.
    pub name: String,
    /// Its size on paper.
    pub size: Size,
    /// How often.
    pub copies: u32,
    /// What stays white along its edges.
    pub margin: Length,
    /// The fewest dots an inch of what is on it.
    pub dots_an_inch: f64,
    /// The picture, upright, as JPEG.
    pub jpeg: Vec<u8>,
}
