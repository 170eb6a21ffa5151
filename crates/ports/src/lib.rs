//! What stands outside of Metrosk, as traits: the photo printer, the cutting machine, the challenge gallery.
//!
//! Each is called from a job and nowhere else, so that it may take its time, tell how far it is, be cancelled, and be tried again after a
//! server is gone. A simulated stand-in of each comes with the station that needs it; the real thing is another implementation.
//!
//! A job may be begun twice. So each call carries an [`OrderId`], and an order that was accepted once is not carried out again.

mod cutter;
mod gallery;
mod printer;

pub use cutter::{CutOrder, Cutter};
pub use gallery::{Entry, EntryPicture, Gallery, Published};
pub use printer::{Print, PrintOrder, Printer};

/// Names one order, however often it is sent: the job's id.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub struct OrderId(pub String);

/// Where an order tells how far it is.
pub trait Progress: Send + Sync {
    /// Says what is being done now, in a few words of a maker's.
    fn tell(&self, stage: &str);

    /// Whether nobody waits for it any more. What is under way then stops where stopping does no harm.
    fn is_cancelled(&self) -> bool;
}

/// Why an order was not carried out.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum PortError {
    /// It does not answer; trying again later may help.
    #[error("{device} does not answer")]
    Unreachable {
        /// What it is called.
        device: String,
    },
    /// It answers, and can't do this.
    #[error("{device} can't do this: {why}")]
    Refused {
        /// What it is called.
        device: String,
        /// What was found and what it allows, in a sentence.
        why: String,
    },
    /// Somebody has to see to it first: paper, ink, a jam. What it did until then is done; the order can be sent again.
    #[error("{device} needs a hand: {what}")]
    NeedsAttention {
        /// What it is called.
        device: String,
        /// What is the matter, and what to do.
        what: String,
    },
    /// Nobody waited for it any more.
    #[error("this was cancelled")]
    Cancelled,
}
