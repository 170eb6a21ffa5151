//! An order for one pair of hands: always the step that the longest way still hangs on, as soon as what comes before it is dry.

use super::step::{Edge, Step};
use std::collections::BTreeSet;

/// A step in its time.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Scheduled {
    /// By its place among the steps.
    pub step: usize,
    /// Minutes from the start.
    pub from: u32,
    /// Minutes from the start.
    pub to: u32,
}

/// How long it is from the start of each step to the end of all, if hands were no matter.
fn tails(steps: &[Step], edges: &[Edge]) -> Vec<u32> {
    let mut tails: Vec<u32> = steps.iter().map(|s| s.minutes).collect();
    // Edges may stand in any order: as many rounds as the longest chain, and never more than there are steps.
    for _ in 0..steps.len() {
        let mut changed = false;
        for edge in edges {
            let through = steps[edge.before].minutes + edge.lag + tails[edge.after];
            if through > tails[edge.before] {
                tails[edge.before] = through;
                changed = true;
            }
        }
        if !changed {
            break;
        }
    }
    tails
}

/// No order takes less. One pair of hands has to do all that comes before a step, in some order, before the longest way from there; and all
/// that lies between two steps after the longest way to the one and before the longest way from the other.
#[must_use]
pub fn lower_bound(steps: &[Step], edges: &[Edge]) -> u32 {
    let turned = |e: &Edge| Edge {
        before: e.after,
        after: e.before,
        ..*e
    };
    let backwards: Vec<Edge> = edges.iter().map(turned).collect();
    // A way includes the step that it starts from, or ends at.
    let (from, to) = (tails(steps, edges), tails(steps, &backwards));
    let before = all_before(steps.len(), edges);
    let work = |is: &dyn Fn(usize) -> bool| -> u32 {
        let counted = (0..steps.len()).filter(|n| is(*n));
        counted.map(|n| steps[n].minutes).sum()
    };
    let mut least = work(&|_| true);
    for last in 0..steps.len() {
        least = least.max(work(&|n| before[last][n]) + from[last]);
        // Only before what has to dry can work be too little to fill the time.
        if steps[last].dries == 0 && from[last] > steps[last].minutes {
            least = least.max(to[last] + work(&|n| before[n][last]));
            continue;
        }
        for first in (0..steps.len()).filter(|n| before[last][*n]) {
            let between = work(&|n| before[n][first] && before[last][n]);
            least = least.max(to[first] + between + from[last]);
        }
    }
    for after in 0..steps.len() {
        // From its start on there are the longest way, all work that comes after it, and what still has to dry then.
        let own = steps[after].minutes;
        let dries_later = (0..steps.len()).filter(|m| steps[*m].dries > 0 && before[*m][after]);
        let rest = dries_later
            .map(|m| own + work(&|n| before[n][after] && before[m][n]) + from[m])
            .max()
            .unwrap_or(0)
            .max(from[after])
            .max(own + work(&|n| before[n][after]));
        let mut wet: Vec<&Edge> = edges
            .iter()
            .filter(|e| e.after == after && e.lag > 0)
            .collect();
        wet.sort_by_key(|e| std::cmp::Reverse(e.lag));
        for n in 0..wet.len() {
            // The last of these to be done still dries for the shortest time of them.
            let all = &wet[..=n];
            let done = work(&|x| all.iter().any(|e| e.before == x || before[e.before][x]));
            let heads = all.iter().map(|e| to[e.before] - steps[e.before].minutes);
            let own: u32 = all.iter().map(|e| steps[e.before].minutes).sum();
            let soonest = heads.min().unwrap_or(0) + own;
            least = least.max(done.max(soonest) + all[n].lag + rest);
        }
    }
    least
}

/// For each step, whether each other has to come before it.
fn all_before(count: usize, edges: &[Edge]) -> Vec<Vec<bool>> {
    let mut before = vec![vec![false; count]; count];
    let mut waiting = vec![0_usize; count];
    for edge in edges {
        waiting[edge.after] += 1;
    }
    let mut open: Vec<usize> = (0..count).filter(|n| waiting[*n] == 0).collect();
    while let Some(n) = open.pop() {
        for edge in edges.iter().filter(|e| e.before == n) {
            let own = before[n].clone();
            let after = &mut before[edge.after];
            after[n] = true;
            for (of_after, of_own) in after.iter_mut().zip(own) {
                *of_after |= of_own;
            }
            waiting[edge.after] -= 1;
            if waiting[edge.after] == 0 {
                open.push(edge.after);
            }
        }
    }
    before
}

/// Puts steps into an order. Those that are done come first, in the order of their rules, and take no time any more. Two rules for whose turn
/// it is are tried, each with hands that take whatever can be begun and with hands that rather wait a little for what more hangs on; the
/// shortest order is taken, the first of equal ones.
pub(super) fn scheduled(steps: &[Step], edges: &[Edge], done: &BTreeSet<String>) -> Vec<Scheduled> {
    let tails = tails(steps, edges);
    // As the rules stand, but for what something has to dry after; or what the longest way hangs on.
    let as_made: Vec<u32> = steps.iter().map(|s| u32::from(s.dries > 0)).collect();
    let tried = [
        (&as_made, false),
        (&tails, false),
        (&tails, true),
        (&as_made, true),
    ];
    let orders = tried.map(|(priority, waits)| {
        let hands = Hands {
            steps,
            edges,
            done,
            priority,
            tails: &tails,
            waits,
        };
        hands.list()
    });
    let end = |order: &Vec<Scheduled>| order.iter().map(|s| s.to).max().unwrap_or(0);
    orders.into_iter().min_by_key(end).unwrap_or_default()
}

/// One pair of hands with a rule for whose turn it is.
struct Hands<'a> {
    steps: &'a [Step],
    edges: &'a [Edge],
    done: &'a BTreeSet<String>,
    priority: &'a [u32],
    tails: &'a [u32],
    /// Rather waits than begins what would keep it from more urgent things.
    waits: bool,
}

impl Hands<'_> {
    fn is_done(&self, n: usize) -> bool {
        self.done.contains(&self.steps[n].id)
    }

    /// What is begun now out of what is open, by its place there.
    fn next(&self, open: &[usize], ready_at: &[u32], now: u32) -> Option<usize> {
        let keeps_from = |n: usize| {
            let end = now + self.steps[n].minutes;
            let urgent = open.iter().filter(|u| self.tails[**u] > self.tails[n]);
            urgent
                .into_iter()
                .any(|u| ready_at[*u] > now && ready_at[*u] < end)
        };
        let can_start =
            |n: usize| self.is_done(n) || ready_at[n] <= now && !(self.waits && keeps_from(n));
        let turn = |n: usize| (self.is_done(n), self.priority[n], usize::MAX - n);
        (0..open.len())
            .filter(|at| can_start(open[*at]))
            .max_by_key(|at| turn(open[*at]))
    }

    fn list(&self) -> Vec<Scheduled> {
        let count = self.steps.len();
        let mut waiting = vec![0_usize; count];
        for edge in self.edges {
            waiting[edge.after] += 1;
        }
        let mut ready_at = vec![0_u32; count];
        let mut open: Vec<usize> = (0..count).filter(|n| waiting[*n] == 0).collect();
        let mut now = 0;
        let mut order = Vec::with_capacity(count);
        while !open.is_empty() {
            let Some(at) = self.next(&open, &ready_at, now) else {
                let later = open.iter().map(|n| ready_at[*n]).filter(|at| *at > now);
                now = later.min().unwrap_or(now + 1);
                continue;
            };
            let step = open.swap_remove(at);
            let is_done = self.is_done(step);
            let to = now + if is_done { 0 } else { self.steps[step].minutes };
            order.push(Scheduled {
                step,
                from: now,
                to,
            });
            now = to;
            for edge in self.edges.iter().filter(|e| e.before == step) {
                let lag = if is_done { 0 } else { edge.lag };
                ready_at[edge.after] = ready_at[edge.after].max(to + lag);
                waiting[edge.after] -= 1;
                if waiting[edge.after] == 0 {
                    open.push(edge.after);
                }
            }
        }
        order
    }
}
