//! The challenge gallery.

use crate::{OrderId, PortError, Progress};
use async_trait::async_trait;

/// Takes finished pages in answer to a challenge.
#[async_trait]
pub trait Gallery: Send + Sync {
    /// Publishes an entry. One that was published before under the same id is answered as it was then.
    ///
    /// # Errors
    /// When it does not answer, refuses the entry, or this was cancelled.
    async fn publish(&self, entry: &Entry, progress: &dyn Progress)
    -> Result<Published, PortError>;
}

/// A finished page with all that is told of it.
#[derive(Clone, Debug)]
pub struct Entry {
    /// Its id.
    pub id: OrderId,
    /// The challenge that it answers, by the gallery's own name for it.
    pub challenge: Option<String>,
    /// The page's title.
    pub title: String,
    /// Who made it.
    pub maker: String,
    /// Whom it credits for the sketch, in a sentence.
    pub credit: Option<String>,
    /// What is told of it.
    pub text: String,
    /// Its photos, as JPEG without metadata, each with what it shows for those who can't see it.
    pub pictures: Vec<(Vec<u8>, String)>,
}

/// Where an entry can be seen.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Published {
    /// Its address.
    pub address: String,
}
