//! The search behind a deal: simulated annealing (Kirkpatrick and others, 1983) from a seed, first on meetings and evenness, then, with these
//! held, on how far equal papers lie apart. So many steps, never a clock: the same seed gives the same answer anywhere.

use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};

/// Steps of the first search and of the second, for each place.
const STEPS: (usize, usize) = (8_000, 6_000);
/// No search takes more steps than these.
const MOST_STEPS: (usize, usize) = (400_000, 250_000);
/// Beginnings that are tried, the best kept.
const BEGINNINGS: u64 = 3;
/// What a meeting costs beside a step of unevenness.
const MEETING: f64 = 60.0;

/// Places, their neighbours, and papers.
pub(super) struct Board {
    at: Vec<(i64, i64)>,
    neighbours: Vec<Vec<usize>>,
    quantity: Vec<usize>,
    clash: Vec<Vec<bool>>,
    locks: Vec<Option<usize>>,
}

type Given = Vec<Option<usize>>;

impl Board {
    pub(super) fn new(
        at: Vec<(i64, i64)>,
        reach: i64,
        quantity: Vec<usize>,
        alike: &dyn Fn(usize, usize) -> bool,
        locks: Vec<Option<usize>>,
    ) -> Board {
        let near = |a: (i64, i64), b: (i64, i64)| {
            let (dx, dy) = (i128::from(a.0 - b.0), i128::from(a.1 - b.1));
            dx * dx + dy * dy < i128::from(reach) * i128::from(reach)
        };
        let neighbours = (0..at.len())
            .map(|n| {
                (0..at.len())
                    .filter(|m| *m != n && near(at[n], at[*m]))
                    .collect()
            })
            .collect();
        let count = quantity.len();
        let clash = (0..count)
            .map(|a| (0..count).map(|b| alike(a, b)).collect())
            .collect();
        Board {
            at,
            neighbours,
            quantity,
            clash,
            locks,
        }
    }

    /// Neighbours that got the same paper, or two that are alike; each pair once.
    pub(super) fn met(&self, given: &Given) -> Vec<(usize, usize)> {
        let pairs = (0..given.len()).flat_map(|n| self.neighbours[n].iter().map(move |m| (n, *m)));
        let meets = |&(n, m): &(usize, usize)| n < m && self.meets(given[n], given[m]);
        pairs.filter(meets).collect()
    }

    fn meets(&self, a: Option<usize>, b: Option<usize>) -> bool {
        a.zip(b).is_some_and(|(a, b)| self.clash[a][b])
    }

    /// How many of a place's neighbours would meet a paper there; `but` is left out.
    fn meetings(&self, given: &Given, place: usize, paper: Option<usize>, but: usize) -> i64 {
        let others = self.neighbours[place].iter().filter(|m| **m != but);
        others.filter(|m| self.meets(paper, given[**m])).count() as i64
    }

    fn distance(&self, a: usize, b: usize) -> f64 {
        let (a, b) = (self.at[a], self.at[b]);
        ((a.0 - b.0) as f64).hypot((a.1 - b.1) as f64)
    }

    /// How far the places of a paper lie from the nearest of the same, summed up; nothing for a paper with one place.
    fn spread_of(&self, places: &[usize]) -> f64 {
        if places.len() < 2 {
            return 0.0;
        }
        let nearest = |n: usize| {
            let others = places.iter().filter(|m| **m != n);
            others
                .map(|m| self.distance(n, *m))
                .fold(f64::INFINITY, f64::min)
        };
        places.iter().map(|n| nearest(*n)).sum()
    }

    fn places_of(&self, given: &Given) -> Vec<Vec<usize>> {
        let mut places = vec![Vec::new(); self.quantity.len()];
        for (n, paper) in given.iter().enumerate() {
            if let Some(paper) = paper {
                places[*paper].push(n);
            }
        }
        places
    }

    fn squares(&self, given: &Given) -> i64 {
        let counts = self.places_of(given);
        counts.iter().map(|p| (p.len() * p.len()) as i64).sum()
    }
}

/// Deals: each place's paper, none where it stays empty.
pub(super) fn solve(board: &Board, seed: u64) -> Given {
    let mut best: Option<((i64, i64, f64), Given)> = None;
    for beginning in 0..BEGINNINGS {
        let mut random =
            StdRng::seed_from_u64(seed.wrapping_mul(BEGINNINGS).wrapping_add(beginning));
        let even = evened(board, first(board, &mut random), &mut random);
        let dealt = spread_out(board, even, &mut random);
        let spread: f64 = board
            .places_of(&dealt)
            .iter()
            .map(|p| board.spread_of(p))
            .sum();
        let worth = (
            board.met(&dealt).len() as i64,
            board.squares(&dealt),
            -spread,
        );
        if best.as_ref().is_none_or(|(least, _)| worth < *least) {
            best = Some((worth, dealt));
        }
    }
    best.map(|(_, dealt)| dealt).unwrap_or_default()
}

/// Locks first, then the papers of which most are left, over places in a random order.
fn first(board: &Board, random: &mut StdRng) -> Given {
    let mut given = board.locks.clone();
    let mut left = board.quantity.clone();
    for paper in given.iter().flatten() {
        left[*paper] -= 1;
    }
    let mut free: Vec<usize> = (0..given.len()).filter(|n| given[*n].is_none()).collect();
    for n in (1..free.len()).rev() {
        free.swap(n, random.random_range(0..=n));
    }
    let mut used = vec![0_usize; left.len()];
    for paper in given.iter().flatten() {
        used[*paper] += 1;
    }
    for place in free {
        let next = (0..left.len())
            .filter(|p| left[*p] > 0)
            .min_by_key(|p| used[*p]);
        let Some(paper) = next else { break };
        given[place] = Some(paper);
        left[paper] -= 1;
        used[paper] += 1;
    }
    given
}

/// A change: one place gets another paper (or what another place has).
enum Move {
    Give(usize, Option<usize>),
    Swap(usize, usize),
}

struct Search<'a> {
    board: &'a Board,
    given: Given,
    counts: Vec<usize>,
    free: Vec<usize>,
}

impl<'a> Search<'a> {
    fn new(board: &'a Board, given: Given) -> Search<'a> {
        let counts = board.places_of(&given).iter().map(Vec::len).collect();
        let free = (0..given.len())
            .filter(|n| board.locks[*n].is_none())
            .collect();
        Search {
            board,
            given,
            counts,
            free,
        }
    }

    /// Two places that have different papers, or one and a paper of which there is one left. Empty places stay as many.
    fn propose(&self, random: &mut StdRng, swaps_only: bool) -> Option<Move> {
        let place = self.free[random.random_range(0..self.free.len())];
        if swaps_only || random.random_bool(0.5) {
            let other = self.free[random.random_range(0..self.free.len())];
            return (self.given[place] != self.given[other]).then_some(Move::Swap(place, other));
        }
        let paper = random.random_range(0..self.counts.len());
        let own = self.given[place]?;
        let left = self.counts[paper] < self.board.quantity[paper];
        (left && own != paper).then_some(Move::Give(place, Some(paper)))
    }

    /// What a change does to the meetings and to the sum of squares.
    fn change(&self, change: &Move) -> (i64, i64) {
        let (board, given) = (self.board, &self.given);
        match *change {
            Move::Give(place, paper) => {
                let none = usize::MAX;
                let met = board.meetings(given, place, paper, none)
                    - board.meetings(given, place, given[place], none);
                let count = |p: Option<usize>| p.map_or(0, |p| self.counts[p] as i64);
                // (a - 1)^2 + (b + 1)^2 - a^2 - b^2
                (met, 2 * (count(paper) - count(given[place]) + 1))
            }
            Move::Swap(a, b) => {
                let both =
                    |x: usize, y: usize, paper: Option<usize>| board.meetings(given, x, paper, y);
                let after = both(a, b, given[b]) + both(b, a, given[a]);
                let before = both(a, b, given[a]) + both(b, a, given[b]);
                (after - before, 0)
            }
        }
    }

    fn make(&mut self, change: &Move) {
        match *change {
            Move::Give(place, paper) => {
                for (p, by) in [(self.given[place], -1_i64), (paper, 1)] {
                    if let Some(p) = p {
                        self.counts[p] = (self.counts[p] as i64 + by) as usize;
                    }
                }
                self.given[place] = paper;
            }
            Move::Swap(a, b) => self.given.swap(a, b),
        }
    }
}

/// From hot to cold over so many steps.
fn heat(step: usize, steps: usize, (hot, cold): (f64, f64)) -> f64 {
    hot * (cold / hot).powf(step as f64 / steps as f64)
}

/// As few meetings as can be found, and of these the most even.
fn evened(board: &Board, given: Given, random: &mut StdRng) -> Given {
    let mut search = Search::new(board, given);
    if search.free.is_empty() || search.counts.is_empty() {
        return search.given;
    }
    let steps = (STEPS.0 * search.free.len()).min(MOST_STEPS.0);
    let mut now = (
        board.met(&search.given).len() as i64,
        board.squares(&search.given),
    );
    let mut best = (now, search.given.clone());
    for step in 0..steps {
        let Some(change) = search.propose(random, false) else {
            continue;
        };
        let (met, squares) = search.change(&change);
        let cost = met as f64 * MEETING + squares as f64;
        let warm = heat(step, steps, (MEETING, 0.4));
        if cost <= 0.0 || random.random_bool((-cost / warm).exp()) {
            search.make(&change);
            now = (now.0 + met, now.1 + squares);
            if now < best.0 {
                best = (now, search.given.clone());
            }
        }
    }
    best.1
}

/// Equal papers further apart, with meetings and counts as they are: only places change papers with one another.
fn spread_out(board: &Board, given: Given, random: &mut StdRng) -> Given {
    let mut search = Search::new(board, given);
    if search.free.len() < 2 {
        return search.given;
    }
    let steps = (STEPS.1 * search.free.len()).min(MOST_STEPS.1);
    let mut places = board.places_of(&search.given);
    let mut spreads: Vec<f64> = places.iter().map(|p| board.spread_of(p)).collect();
    let scale = spreads.iter().sum::<f64>().max(1.0) / board.at.len() as f64;
    let (mut extra, mut now) = (0_i64, 0.0_f64);
    let mut best = (0.0_f64, search.given.clone());
    for step in 0..steps {
        let Some(change) = search.propose(random, true) else {
            continue;
        };
        let Move::Swap(a, b) = change else { continue };
        let (met, _) = search.change(&change);
        if extra + met > 1 {
            continue;
        }
        let (pa, pb) = (search.given[a], search.given[b]);
        let moved = |places: &[usize], from: usize, to: usize| -> Vec<usize> {
            places
                .iter()
                .map(|p| if *p == from { to } else { *p })
                .collect()
        };
        let a_moved = pa.map(|p| (p, moved(&places[p], a, b)));
        let b_moved = pb.map(|p| (p, moved(&places[p], b, a)));
        let spread = |m: &Option<(usize, Vec<usize>)>| {
            m.as_ref()
                .map_or((0.0, 0.0), |(p, list)| (board.spread_of(list), spreads[*p]))
        };
        let ((na, oa), (nb, ob)) = (spread(&a_moved), spread(&b_moved));
        let gain = (na + nb - oa - ob) / scale;
        // On the way one meeting more is allowed, at a price.
        let cost = met as f64 * 4.0 - gain;
        let warm = heat(step, steps, (1.2, 0.01));
        if cost <= 0.0 || random.random_bool((-cost / warm).exp()) {
            search.make(&change);
            extra += met;
            now += gain;
            for ((p, list), new) in [(a_moved, na), (b_moved, nb)]
                .into_iter()
                .filter_map(|(m, n)| m.map(|m| (m, n)))
            {
                places[p] = list;
                spreads[p] = new;
            }
            if extra <= 0 && (extra < 0 || now > best.0 + 1e-9) {
                if extra < 0 {
                    extra = 0;
                    now = 0.0;
                }
                best = (now, search.given.clone());
            }
        }
    }
    best.1
}
