//! The challenge gallery.

use crate::{OrderId, PortError, Progress};
use async_trait::async_trait;

/// Takes finished pages in answer to a challenge.
///
/// An answer may be lost on its way: an entry that [`PortError::Unreachable`] was told of may hang there all the same. Whoever sends it asks with
/// [`Gallery::look_up`] before sending it again.
#[async_trait]
pub trait Gallery: Send + Sync {
    /// Takes an entry. One that was taken before under the same id is answered as it was then. One that replaces another takes its place in one
    /// step: there is never both, and never neither.
    ///
    /// # Errors
    /// When it does not answer, refuses the entry, or this was cancelled.
    async fn publish(&self, entry: &Entry, progress: &dyn Progress)
    -> Result<Published, PortError>;

    /// What became of an entry: none where it never came, or was withdrawn.
    ///
    /// # Errors
    /// When it does not answer.
    async fn look_up(&self, id: &OrderId) -> Result<Option<Published>, PortError>;

    /// Takes an entry down. One that does not hang there is as good as taken down.
    ///
    /// # Errors
    /// When it does not answer.
    async fn withdraw(&self, id: &OrderId) -> Result<(), PortError>;
}

/// A finished page with all that is told of it.
#[derive(Clone, Debug)]
pub struct Entry {
    /// Its id.
    pub id: OrderId,
    /// The challenge that it answers, by the gallery's own name for it.
    pub challenge: Option<String>,
    /// The entry whose place it takes.
    pub replaces: Option<OrderId>,
    /// The page's title.
    pub title: String,
    /// Who made it.
    pub maker: String,
    /// Whom it credits, in a sentence each.
    pub credits: Vec<String>,
    /// What is told of it.
    pub text: String,
    /// Its pictures without metadata, the whole page first.
    pub pictures: Vec<EntryPicture>,
}

/// A picture of an entry.
#[derive(Clone, Debug)]
pub struct EntryPicture {
    /// JPEG, PNG or WebP.
    pub bytes: Vec<u8>,
    /// In pixels.
    pub width: u32,
    /// In pixels.
    pub height: u32,
    /// What it shows, for those who can't see it.
    pub shows: String,
}

/// Where an entry can be seen.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Published {
    /// Its address.
    pub address: String,
}
