//! One pool for all that computes: fits, readings, pictures, lines by number. So many at once, teams in turn, a place taken before a
//! body is read, and nothing goes on when nobody waits for it any more.

use crate::http::error::Failure;
use metrosk_core::Cancel;
use std::collections::{HashMap, VecDeque};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};
use tokio::sync::oneshot;
use uuid::Uuid;

/// Requests of one team that may be in hand, their bodies in memory: the ones that compute and the ones that wait.
const OF_TEAM: usize = 24;
/// The same for all teams together: with bodies of up to 16 MB this bounds what they take.
const OF_ALL: usize = 96;

/// What is computed, as the metrics tell it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Work {
    /// A fit, or the back of a page.
    Fit,
    /// Lines by number, documents, archives.
    Document,
    /// A picture made ready, read, or lifted from.
    Picture,
    /// A layout or a sheet drawn.
    Drawing,
}

impl Work {
    const fn name(self) -> &'static str {
        match self {
            Work::Fit => "fit",
            Work::Document => "document",
            Work::Picture => "picture",
            Work::Drawing => "drawing",
        }
    }
}

/// The pool, shared by all that asks it.
#[derive(Clone, Debug)]
pub(crate) struct Compute {
    state: Arc<Mutex<State>>,
    /// Work that takes longer is given up.
    longest: Duration,
}

#[derive(Debug, Default)]
struct State {
    /// Places on which nothing is computed.
    free: usize,
    /// Those that wait, by team; the team at the front is next.
    waiting: VecDeque<(Uuid, VecDeque<oneshot::Sender<Slot>>)>,
    /// Requests in hand, by team.
    in_hand: HashMap<Uuid, usize>,
    running: usize,
    /// Work under way, to be stopped when the server stops.
    under_way: Vec<Cancel>,
    stopped: bool,
}

/// A request's place in the house, from before its body is read until it is answered.
#[derive(Debug)]
pub(crate) struct Admission {
    compute: Compute,
    team: Uuid,
}

/// A place on which one piece of work is computed.
#[derive(Debug)]
struct Slot {
    compute: Compute,
    /// The work on it.
    token: Option<Cancel>,
    /// Whether it goes on to the next when it is dropped.
    armed: bool,
}

impl Compute {
    /// A pool for so many pieces of work at once.
    pub(crate) fn new(places: usize, longest: Duration) -> Compute {
        Compute {
            state: Arc::new(Mutex::new(State {
                free: places.max(1),
                ..State::default()
            })),
            longest,
        }
    }

    fn lock(&self) -> MutexGuard<'_, State> {
        self.state.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Takes a request of a team in hand, or says that there are too many.
    pub(crate) fn admit(&self, team: Uuid) -> Result<Admission, Failure> {
        let mut state = self.lock();
        let all: usize = state.in_hand.values().sum();
        let of_team = state.in_hand.entry(team).or_default();
        if *of_team >= OF_TEAM || all >= OF_ALL {
            metrics::counter!("metrosk_compute_refused_total").increment(1);
            return Err(Failure::Busy);
        }
        *of_team += 1;
        Ok(Admission {
            compute: self.clone(),
            team,
        })
    }

    /// Computes off the threads that answer, once it is the team's turn. Work that nobody waits for any more is told to stop, and so is
    /// work that takes too long.
    pub(crate) async fn run<T: Send + 'static>(
        &self,
        team: Uuid,
        what: Work,
        work: impl FnOnce(&Cancel) -> T + Send + 'static,
    ) -> Result<T, Failure> {
        let slot = self.slot(team).await?;
        let cancel = Cancel::default();
        let _stop_if_dropped = CancelOnDrop(cancel.clone());
        let token = cancel.clone();
        let begun = Instant::now();
        let done = tokio::task::spawn_blocking(move || {
            let _slot = slot.begin(&token);
            let done = work(&token);
            metrics::histogram!("metrosk_compute_seconds", "work" => what.name())
                .record(begun.elapsed());
            done
        });
        match tokio::time::timeout(self.longest, done).await {
            Ok(Ok(done)) => Ok(done),
            Ok(Err(error)) => Err(Failure::Internal(format!(
                "{} did not end: {error}",
                what.name()
            ))),
            Err(_) => Err(Failure::TooLong(self.longest.as_secs())),
        }
    }

    /// Stops what is under way, and begins nothing new: the server goes down.
    pub(crate) fn stop(&self) {
        let mut state = self.lock();
        state.stopped = true;
        state.under_way.iter().for_each(Cancel::cancel);
        state.waiting.clear();
    }

    async fn slot(&self, team: Uuid) -> Result<Slot, Failure> {
        let waits = {
            let mut state = self.lock();
            if state.stopped {
                return Err(Failure::Busy);
            }
            if state.free > 0 {
                state.free -= 1;
                return Ok(self.new_slot());
            }
            let (give, waits) = oneshot::channel();
            match state.waiting.iter_mut().find(|(t, _)| *t == team) {
                Some((_, queue)) => queue.push_back(give),
                None => state.waiting.push_back((team, VecDeque::from([give]))),
            }
            state.tell();
            waits
        };
        waits.await.map_err(|_| Failure::Busy)
    }

    fn new_slot(&self) -> Slot {
        Slot {
            compute: self.clone(),
            token: None,
            armed: true,
        }
    }
}

impl State {
    /// Who is next: teams in turn, within a team by coming.
    fn next(&mut self) -> Option<oneshot::Sender<Slot>> {
        while let Some((team, mut queue)) = self.waiting.pop_front() {
            // Who has gone meanwhile is passed over.
            let next = std::iter::from_fn(|| queue.pop_front()).find(|give| !give.is_closed());
            if !queue.is_empty() {
                self.waiting.push_back((team, queue));
            }
            if next.is_some() {
                return next;
            }
        }
        None
    }

    fn tell(&self) {
        let waiting: usize = self.waiting.iter().map(|(_, queue)| queue.len()).sum();
        metrics::gauge!("metrosk_compute_waiting").set(waiting as f64);
        metrics::gauge!("metrosk_compute_running").set(self.running as f64);
    }
}

impl Slot {
    fn begin(mut self, token: &Cancel) -> Slot {
        let mut state = self.compute.lock();
        state.running += 1;
        state.under_way.push(token.clone());
        if state.stopped {
            token.cancel();
        }
        state.tell();
        drop(state);
        self.token = Some(token.clone());
        self
    }
}

impl Drop for Slot {
    /// Hands the place on. Work that panicked hands it on too.
    fn drop(&mut self) {
        if !self.armed {
            return;
        }
        let mut state = self.compute.lock();
        if let Some(token) = &self.token {
            state.under_way.retain(|c| !c.is(token));
            state.running -= 1;
        }
        loop {
            let Some(give) = state.next() else {
                state.free += 1;
                break;
            };
            match give.send(self.compute.new_slot()) {
                Ok(()) => break,
                // Its receiver went in this moment; the next one gets the place.
                Err(mut slot) => slot.armed = false,
            }
        }
        state.tell();
    }
}

impl Drop for Admission {
    fn drop(&mut self) {
        let mut state = self.compute.lock();
        if let Some(count) = state.in_hand.get_mut(&self.team) {
            *count -= 1;
            if *count == 0 {
                state.in_hand.remove(&self.team);
            }
        }
    }
}

struct CancelOnDrop(Cancel);

impl Drop for CancelOnDrop {
    fn drop(&mut self) {
        self.0.cancel();
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::mpsc;

    const LONG: Duration = Duration::from_secs(60);

    fn team(n: u128) -> Uuid {
        Uuid::from_u128(n)
    }

    /// Work that holds a place until it is let go.
    fn held(
        compute: &Compute,
        of: u128,
    ) -> (
        mpsc::Sender<()>,
        tokio::task::JoinHandle<Result<(), Failure>>,
    ) {
        let (go, wait) = mpsc::channel::<()>();
        let compute = compute.clone();
        let done = tokio::spawn(async move {
            compute
                .run(team(of), Work::Fit, move |_| {
                    wait.recv().unwrap_or_default()
                })
                .await
        });
        (go, done)
    }

    async fn until(what: impl Fn() -> bool) {
        while !what() {
            tokio::task::yield_now().await;
        }
    }

    #[tokio::test]
    async fn teams_take_turns_and_who_has_gone_is_passed_over() {
        let compute = Compute::new(1, LONG);
        let (go, first) = held(&compute, 1);
        until(|| compute.lock().running == 1).await;
        let order = Arc::new(Mutex::new(Vec::new()));
        let mut waiting = Vec::new();
        for (n, of) in [(0, 1), (1, 1), (2, 1), (3, 2)] {
            let (compute, order) = (compute.clone(), order.clone());
            let before = n;
            waiting.push(tokio::spawn({
                let compute = compute.clone();
                async move {
                    compute
                        .run(team(of), Work::Fit, move |_| order.lock().unwrap().push(n))
                        .await
                }
            }));
            until(|| {
                compute
                    .lock()
                    .waiting
                    .iter()
                    .map(|(_, q)| q.len())
                    .sum::<usize>()
                    == before + 1
            })
            .await;
        }
        waiting.remove(1).abort();
        go.send(()).unwrap();
        first.await.unwrap().unwrap();
        for done in waiting {
            done.await.unwrap().unwrap();
        }
        assert_eq!(
            *order.lock().unwrap(),
            [0, 3, 2],
            "one team's queue does not stand before another's first"
        );
        until(|| compute.lock().free == 1).await;
    }

    #[tokio::test]
    async fn work_that_nobody_waits_for_is_told_to_stop() {
        let compute = Compute::new(1, LONG);
        let (tell, told) = mpsc::channel();
        let run = tokio::spawn({
            let compute = compute.clone();
            async move {
                let work = move |cancel: &Cancel| {
                    while !cancel.is_cancelled() {
                        std::thread::yield_now();
                    }
                    tell.send(()).unwrap();
                };
                compute.run(team(1), Work::Fit, work).await
            }
        });
        until(|| compute.lock().running == 1).await;
        run.abort();
        tokio::task::spawn_blocking(move || told.recv().unwrap())
            .await
            .unwrap();
        until(|| compute.lock().free == 1).await;
        assert!(compute.lock().under_way.is_empty());
    }

    #[tokio::test]
    async fn work_that_takes_too_long_is_given_up_and_a_stop_ends_all() {
        let compute = Compute::new(1, Duration::from_millis(1));
        let spin = |cancel: &Cancel| {
            while !cancel.is_cancelled() {
                std::thread::yield_now();
            }
        };
        assert!(matches!(
            compute.run(team(1), Work::Fit, spin).await,
            Err(Failure::TooLong(0))
        ));
        let compute = Compute::new(1, LONG);
        let run = tokio::spawn({
            let compute = compute.clone();
            async move { compute.run(team(1), Work::Fit, spin).await }
        });
        until(|| compute.lock().running == 1).await;
        compute.stop();
        run.await.unwrap().unwrap();
        assert!(matches!(
            compute.run(team(1), Work::Fit, |_| ()).await,
            Err(Failure::Busy)
        ));
    }

    #[test]
    fn a_team_has_so_many_in_hand_and_all_have_so_many() {
        let compute = Compute::new(1, LONG);
        let mut kept: Vec<_> = (0..OF_TEAM)
            .map(|_| compute.admit(team(1)).unwrap())
            .collect();
        assert!(matches!(compute.admit(team(1)), Err(Failure::Busy)));
        kept.pop();
        kept.push(compute.admit(team(1)).unwrap());
        let mut others = 0;
        while let Ok(more) = compute.admit(team(2 + others as u128)) {
            kept.push(more);
            others += 1;
        }
        assert_eq!(kept.len(), OF_ALL);
    }

    #[tokio::test]
    async fn a_panic_gives_its_place_back() {
        let compute = Compute::new(1, LONG);
        let failed = compute
            .run(team(1), Work::Fit, |_| panic!("on purpose"))
            .await;
        assert!(matches!(failed, Err(Failure::Internal(_))));
        assert_eq!(compute.run(team(1), Work::Fit, |_| 3).await.unwrap(), 3);
        assert_eq!(compute.lock().running, 0);
    }
}
