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
/// Spreads that differ by less than this share of a distance are as good as one another.
const SAME: f64 = 1e-3;
/// What a meeting costs beside a step of unevenness.
const MEETING: f64 = 60.0;

/// Places, their neighbours, and papers.
pub(super) struct Board {
    at: Vec<(i64, i64)>,
    neighbours: Vec<Vec<usize>>,
    quantity: Vec<usize>,
    clash: Vec<Vec<bool>>,
    locks: Vec<Option<usize>>,
    /// From each place to each other, row by row.
    distances: Vec<f64>,
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
        let between = |a: (i64, i64), b: (i64, i64)| ((a.0 - b.0) as f64).hypot((a.1 - b.1) as f64);
        let pairs = at.iter().flat_map(|a| at.iter().map(move |b| (*a, *b)));
        let distances = pairs.map(|(a, b)| between(a, b)).collect();
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
            distances,
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
        self.distances[a * self.at.len() + b]
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

    /// The least sum of squares that so many places can have: each goes to the paper that has fewest, locks first.
    fn least_squares(&self, filled: usize) -> i64 {
        let mut counts = vec![0_usize; self.quantity.len()];
        for paper in self.locks.iter().flatten() {
            counts[*paper] += 1;
        }
        for _ in self.locks.iter().flatten().count()..filled {
            let next = (0..counts.len())
                .filter(|p| counts[*p] < self.quantity[*p])
                .min_by_key(|p| counts[*p]);
            if let Some(next) = next {
                counts[next] += 1;
            }
        }
        counts.iter().map(|c| (c * c) as i64).sum()
    }

    fn squares(&self, given: &Given) -> i64 {
        let counts = self.places_of(given);
        counts.iter().map(|p| (p.len() * p.len()) as i64).sum()
    }
}

/// Deals: each place's paper, none where it stays empty.
pub(super) fn solve(board: &Board, seed: u64) -> Given {
    let scale = board.distances.iter().copied().fold(1.0, f64::max);
    let mut best: Option<((i64, i64, i64), Given)> = None;
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
            // What is nearly alike is as good, and the first of it is kept: another seed has another first.
            -(spread / scale / SAME).round() as i64,
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
    let least = (0, board.least_squares(best.1.iter().flatten().count()));
    for step in 0..steps {
        if best.0 == least {
            break;
        }
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
    let mut apart = Apart::new(board, &search.given);
    let scale = apart.nearest.iter().sum::<f64>().max(1.0) / board.at.len() as f64;
    let (mut extra, mut now) = (0_i64, 0.0_f64);
    let mut best = (0.0_f64, search.given.clone());
    for step in 0..steps {
        let Some(change) = search.propose(random, true) else {
            continue;
        };
        let Move::Swap(a, b) = change else { continue };
        let (met, _) = search.change(&change);
        // On the way one meeting more is allowed, at a price.
        if extra + met > 1 {
            continue;
        }
        let (pa, pb) = (search.given[a], search.given[b]);
        let gain_of =
            |paper: Option<usize>, from, to| paper.map_or(0.0, |p| apart.gain(p, from, to));
        let gain = (gain_of(pa, a, b) + gain_of(pb, b, a)) / scale;
        let cost = met as f64 * 4.0 - gain;
        let warm = heat(step, steps, (1.2, 0.01));
        if cost > 0.0 && !random.random_bool((-cost / warm).exp()) {
            continue;
        }
        search.make(&change);
        apart.exchange((pa, a), (pb, b));
        extra += met;
        now += gain;
        if extra < 0 {
            // A beginning with fewer meetings.
            (extra, now) = (0, 0.0);
            best = (now, search.given.clone());
        } else if extra == 0 && now > best.0 + SAME {
            best = (now, search.given.clone());
        }
    }
    best.1
}

/// How far each place lies from the nearest of the same paper, kept up while papers change places.
struct Apart<'a> {
    board: &'a Board,
    /// Of each paper its places.
    places: Vec<Vec<usize>>,
    /// Of each place the distance; 0 where its paper lies nowhere else, or it has none.
    nearest: Vec<f64>,
}

impl<'a> Apart<'a> {
    fn new(board: &'a Board, given: &Given) -> Apart<'a> {
        let mut apart = Apart {
            board,
            places: board.places_of(given),
            nearest: vec![0.0; given.len()],
        };
        for paper in 0..apart.places.len() {
            apart.look_again(paper);
        }
        apart
    }

    /// From a place to the nearest of a paper's others, one of them left out.
    fn nearest_to(&self, paper: usize, place: usize, but: usize) -> f64 {
        let others = self.places[paper]
            .iter()
            .filter(|m| **m != place && **m != but);
        others
            .map(|m| self.board.distance(place, *m))
            .fold(f64::INFINITY, f64::min)
    }

    /// How much further apart a paper lies when what is on one place goes to another.
    fn gain(&self, paper: usize, from: usize, to: usize) -> f64 {
        let places = &self.places[paper];
        if places.len() < 2 {
            return 0.0;
        }
        let mut gain = self.nearest_to(paper, to, from) - self.nearest[from];
        for place in places.iter().copied().filter(|p| *p != from) {
            let own = self.nearest[place];
            let left = if own < self.board.distance(place, from) {
                own
            } else {
                self.nearest_to(paper, place, from)
            };
            gain += left.min(self.board.distance(place, to)) - own;
        }
        gain
    }

    fn look_again(&mut self, paper: usize) {
        for n in 0..self.places[paper].len() {
            let place = self.places[paper][n];
            let nearest = self.nearest_to(paper, place, place);
            self.nearest[place] = if nearest.is_finite() { nearest } else { 0.0 };
        }
    }

    /// Two places change papers.
    fn exchange(&mut self, a: (Option<usize>, usize), b: (Option<usize>, usize)) {
        for ((paper, from), to) in [(a, b.1), (b, a.1)] {
            self.nearest[to] = 0.0;
            if let Some(paper) = paper
                && let Some(place) = self.places[paper].iter_mut().find(|p| **p == from)
            {
                *place = to;
            }
        }
        for paper in [a.0, b.0].into_iter().flatten() {
            self.look_again(paper);
        }
    }
}
