//! What happens to a team's things, to everybody who looks at them: written with the change itself, carried between servers by the
//! database, and handed to each open stream.

use crate::features::events::store::{CHANNEL, EventRow};
use sqlx::PgPool;
use sqlx::postgres::PgListener;
use std::sync::{Arc, OnceLock};
use std::time::Duration;
use tokio::sync::{broadcast, watch};

/// Notices that a slow stream may be behind; one that is further behind is told to look again.
const BEHIND: usize = 256;
/// A lost connection is tried again after this.
const AGAIN: Duration = Duration::from_secs(2);

/// What a stream is handed.
#[derive(Debug, Clone)]
pub(crate) enum Notice {
    /// Something happened.
    Event(Arc<EventRow>),
    /// Something may have been missed: whoever looks at anything looks again.
    LookAgain,
}

/// The notices of this server.
#[derive(Clone, Debug)]
pub(crate) struct Events {
    sender: broadcast::Sender<Notice>,
    stopping: watch::Sender<bool>,
    listening: Arc<OnceLock<()>>,
}

impl Default for Events {
    fn default() -> Events {
        Events {
            sender: broadcast::Sender::new(BEHIND),
            stopping: watch::Sender::new(false),
            listening: Arc::default(),
        }
    }
}

impl Events {
    /// A stream's notices from now on, and what says that the server stops. The first stream makes the server listen.
    pub(crate) fn subscribe(
        &self,
        pool: &PgPool,
    ) -> (broadcast::Receiver<Notice>, watch::Receiver<bool>) {
        let receiver = self.sender.subscribe();
        self.listening.get_or_init(|| {
            tokio::spawn(listen(pool.clone(), self.sender.clone()));
        });
        (receiver, self.stopping.subscribe())
    }

    /// Ends every stream: the server goes down.
    pub(crate) fn stop(&self) {
        self.stopping.send_replace(true);
    }
}

/// Hands on what the database carries, for as long as the process lives.
async fn listen(pool: PgPool, sender: broadcast::Sender<Notice>) {
    loop {
        if let Err(error) = hand_on(&pool, &sender).await {
            tracing::warn!(%error, "notices are not heard; tried again in a moment");
        }
        // What was told meanwhile was not heard here. That nobody listens is no failure.
        let _ = sender.send(Notice::LookAgain);
        tokio::time::sleep(AGAIN).await;
    }
}

/// Until the connection is lost.
async fn hand_on(pool: &PgPool, sender: &broadcast::Sender<Notice>) -> sqlx::Result<()> {
    let mut listener = PgListener::connect_with(pool).await?;
    listener.listen(CHANNEL).await?;
    let _ = sender.send(Notice::LookAgain);
    while let Some(told) = listener.try_recv().await? {
        match serde_json::from_str::<EventRow>(told.payload()) {
            Ok(event) => {
                let _ = sender.send(Notice::Event(Arc::new(event)));
            }
            Err(error) => tracing::warn!(%error, "a notice could not be read"),
        }
    }
    Ok(())
}
