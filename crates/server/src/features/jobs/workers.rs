//! Long work: put down as rows, taken by whichever server is free, told as events.
//!
//! A table of our own rather than a queue library: those at hand have no word of progress, and can't cancel what another process is at.
//! A server holds a job under a lease. It says every few seconds that it is still there; when it is gone, the lease runs out and another
//! server begins the job again. So a job may be begun twice, and must come to the same both times.

use crate::features::cutting::machine::job as cutting;
use crate::features::events::hub::Notice;
use crate::features::events::store as events;
use crate::features::gallery::job as gallery;
use crate::features::jobs::store::{self as jobs, End, LEASE, Taken};
use crate::features::layouts::job as layout;
use crate::features::photos::printing::job as printing;
use crate::features::pictures::job as read_picture;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::Cancel;
use serde_json::Value;
use std::sync::Arc;
use std::time::Duration;
use tokio::sync::{broadcast, watch};
use tokio::task::JoinHandle;
use uuid::Uuid;

/// What nobody has said a word about is looked for this often: a job whose server is gone tells nothing.
const LOOK_AROUND: Duration = Duration::from_secs(5);

/// What each worker of a server takes. Layouts are made by one of them alone: nobody waits for these, and those who read a picture do.
const WORKERS: [&[&str]; 2] = [
    &[read_picture::KIND, layout::KIND],
    &[
        read_picture::KIND,
        printing::KIND,
        cutting::KIND,
        gallery::KIND,
    ],
];

/// A job under way, for the code that does it.
#[derive(Clone, Debug)]
pub(crate) struct Running {
    app: App,
    pub(crate) team: Uuid,
    id: Uuid,
    lease: Uuid,
    /// Told when the job is cancelled, or the server goes down.
    pub(crate) cancel: Cancel,
}

impl Running {
    /// Says how far it is.
    pub(crate) async fn progress(&self, stage: &str) -> Result<(), Failure> {
        let mut db = self.app.pool.acquire().await?;
        if !jobs::go_on(&mut db, self.id, self.lease, Some(stage)).await? {
            self.cancel.cancel();
        }
        Ok(())
    }
}

/// Starts a server's workers. They end when it stops.
pub(crate) fn start(app: &App) -> Vec<JoinHandle<()>> {
    let worker = |kinds: &'static [&'static str]| tokio::spawn(work(app.clone(), kinds));
    WORKERS.into_iter().map(worker).collect()
}

async fn work(app: App, kinds: &'static [&'static str]) {
    let (mut told, mut stopping) = app.events.subscribe(&app.pool);
    while !*stopping.borrow() {
        match take(&app, kinds).await {
            Ok(Some(job)) => {
                let id = job.0.id;
                if let Err(failure) = run(&app, job, &mut stopping).await {
                    tracing::warn!(job = %id, error = %failure, "a job was left where it was; it is taken up again");
                }
            }
            Ok(None) => wait(&mut told, &mut stopping).await,
            Err(failure) => {
                tracing::warn!(error = %failure, "no job could be taken; tried again in a moment");
                wait(&mut told, &mut stopping).await;
            }
        }
    }
}

async fn take(app: &App, kinds: &[&str]) -> Result<Option<(Taken, Uuid)>, Failure> {
    let lease = Uuid::new_v4();
    let mut tx = app.pool.begin().await?;
    let taken = jobs::take(&mut tx, kinds, lease).await?;
    tx.commit().await?;
    Ok(taken.map(|job| (job, lease)))
}

/// Until there may be something to do.
async fn wait(told: &mut broadcast::Receiver<Notice>, stopping: &mut watch::Receiver<bool>) {
    let waits = |notice: &Notice| match notice {
        Notice::Event(event) => {
            event.what == events::JOB && event.state.as_deref() == Some("waiting")
        }
        Notice::LookAgain => true,
    };
    let something = async {
        loop {
            match told.recv().await {
                Ok(notice) if !waits(&notice) => {}
                _ => return,
            }
        }
    };
    tokio::select! {
        () = something => {}
        () = tokio::time::sleep(LOOK_AROUND) => {}
        _ = stopping.wait_for(|stop| *stop) => {}
    }
}

/// Does a job: to its end, until it is cancelled, or until the server stops.
async fn run(
    app: &App,
    (job, lease): (Taken, Uuid),
    stopping: &mut watch::Receiver<bool>,
) -> Result<(), Failure> {
    let running = Running {
        app: app.clone(),
        team: job.team_id,
        id: job.id,
        lease,
        cancel: Cancel::default(),
    };
    let _stop_if_dropped = StopOnDrop(running.cancel.clone());
    let done = tokio::select! {
        done = perform(app, &running, &job) => Some(done),
        () = until_lost(app, &running) => None,
        _ = stopping.wait_for(|stop| *stop) => None,
    };
    let mut tx = app.pool.begin().await?;
    match done {
        Some(Ok(outcome)) => jobs::end(&mut tx, job.id, lease, &End::Done(outcome)).await?,
        // This server goes down, or has no room now: the next one takes it. One that was cancelled stays so.
        None | Some(Err(Failure::Busy)) => jobs::give_back(&mut tx, job.id, lease).await?,
        Some(Err(failure)) => {
            let problem = serde_json::to_value(failure.problem()).unwrap_or_default();
            jobs::end(&mut tx, job.id, lease, &End::Failed(problem)).await?;
        }
    }
    tx.commit().await?;
    Ok(())
}

async fn perform(app: &App, running: &Running, job: &Taken) -> Result<Value, Failure> {
    if jobs::is_hopeless(job.tries) {
        return Err(Failure::Internal(format!(
            "this {} was begun {} times and never ended",
            job.kind,
            job.tries - 1
        )));
    }
    match job.kind.as_str() {
        read_picture::KIND => read_picture::perform(app, running, &job.input).await,
        layout::KIND => layout::perform(app, running, &job.input).await,
        printing::KIND => printing::perform(app, running, &job.input).await,
        cutting::KIND => cutting::perform(app, running, &job.input).await,
        gallery::KIND => gallery::perform(app, running, &job.input).await,
        other => Err(Failure::Internal(format!(
            "there are no jobs called {other}"
        ))),
    }
}

/// Keeps the lease, until the job is no longer this server's: somebody cancelled it, or it was taken for lost.
async fn until_lost(app: &App, running: &Running) {
    let (mut told, _) = app.events.subscribe(&app.pool);
    loop {
        let cancelled = async {
            loop {
                match told.recv().await {
                    Ok(Notice::Event(event)) if event.thing == running.id => {
                        if event.state.as_deref() == Some("cancelled") {
                            return;
                        }
                    }
                    Ok(Notice::Event(_)) => {}
                    Ok(Notice::LookAgain) | Err(_) => return,
                }
            }
        };
        tokio::select! {
            () = cancelled => {}
            () = tokio::time::sleep(LEASE / 3) => {}
        }
        let ours = async {
            let mut db = app.pool.acquire().await?;
            jobs::go_on(&mut db, running.id, running.lease, None).await
        };
        // A database that does not answer at this moment takes nothing away; the lease may.
        if matches!(ours.await, Ok(false)) {
            return;
        }
    }
}

/// Stops the work of a job that is left.
struct StopOnDrop(Cancel);

impl Drop for StopOnDrop {
    fn drop(&mut self) {
        self.0.cancel();
    }
}

/// A sender of stages out of a computation, and the task that puts them down: a computation does not wait for the database.
pub(crate) fn stages(
    running: &Running,
) -> (Arc<watch::Sender<Option<&'static str>>>, JoinHandle<()>) {
    let (tell, mut told) = watch::channel(None);
    let running = running.clone();
    let puts_down = tokio::spawn(async move {
        while told.changed().await.is_ok() {
            let stage = *told.borrow_and_update();
            if let Some(stage) = stage
                && let Err(failure) = running.progress(stage).await
            {
                tracing::debug!(error = %failure, "a stage was not told");
            }
        }
    });
    (Arc::new(tell), puts_down)
}
