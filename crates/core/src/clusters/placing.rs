//! Where the pieces of a cluster lie.
//!
//! Each piece tries places on rings round the cluster's middle, and takes the one that costs least; then every piece is taken up and laid
//! again with all others in place, twice. The cost, in square inches: what hides something that must stay in sight and what hangs off the
//! page count fortyfold, after a step that nothing else outweighs, what should be hidden and isn't three times, a piece that touches nothing or hides a piece below almost wholly as much as
//! its own area, and the distance from where its size belongs (larger ones nearer the middle) by its square. Best of a given set of places, as in
//! iterated best response; the seed turns the rings.

use super::decisions::ClusterChoice;
use super::thing::Thing;
use crate::geometry::{Span, turned};
use crate::length::{Length, Unit};
use crate::stash::Form;
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use std::f64::consts::TAU;

const INCH: f64 = Unit::Inch.ticks() as f64;
/// Directions on a ring.
const DIRECTIONS: usize = 20;
/// Rings, as shares of the cluster's reach.
const RINGS: [f64; 5] = [0.15, 0.4, 0.65, 0.9, 1.2];
const ROUNDS: usize = 2;
const IN_SIGHT: f64 = 40.0;
/// Any place where nothing is hidden and nothing hangs off the page is better than any where something is.
const FIRST_OF_ALL: f64 = 1e4;
/// In square ticks: less than this is a rounded edge.
const NOTHING: f64 = 1.0;
const TO_HIDE: f64 = 3.0;
/// Makers lay at least this much of a piece over the stack.
const LEAST_OVER: f64 = 0.12;
/// A piece of which more than this is hidden might as well stay in the drawer.
const MOST_HIDDEN: f64 = 0.6;

/// What lies where a cluster goes.
#[derive(Clone, Debug)]
pub struct Surroundings {
    /// The page that it lies on, in ticks.
    pub page: Span,
    /// What must stay in sight: areas to keep, titles, writing.
    pub in_sight: Vec<Span>,
    /// What should be hidden.
    pub to_hide: Vec<Span>,
}

/// A piece in its place.
#[derive(Clone, Debug, PartialEq)]
pub struct PlacedPiece {
    /// Which of the cluster's pieces, bottom to top.
    pub piece: usize,
    /// Its middle, in ticks.
    pub at: (f64, f64),
    /// Degrees clockwise.
    pub turn: f64,
    /// Its bounds as it lies, in ticks.
    pub bounds: Span,
    /// Whether it hides something that must stay in sight.
    pub hides: bool,
    /// Whether it hangs off the page.
    pub off_page: bool,
}

impl PlacedPiece {
    /// Its middle as lengths from the canvas's corner.
    pub fn middle(&self) -> (Length, Length) {
        let ticks = |n: f64| Length::from_ticks(n.round() as i64);
        (ticks(self.at.0), ticks(self.at.1))
    }
}

/// Lays a cluster's pieces; one for each of its pieces, `things` in the same order.
pub fn placed(
    cluster: Span,
    choice: &ClusterChoice,
    things: &[&Thing],
    around: &Surroundings,
) -> Vec<PlacedPiece> {
    let mut random = StdRng::seed_from_u64(choice.seed);
    let mut table = Table::new(cluster, things, around);
    let first_turn = random.random_range(0.0..TAU);
    for (n, piece) in choice.pieces.iter().enumerate() {
        let turns = random.random_range(-1.0..1.0);
        table.spots.push(Spot {
            at: (cluster.cx(), cluster.cy()),
            turn: piece
                .turn
                .unwrap_or_else(|| usual_turn(things[n].form, turns)),
            is_down: false,
            is_held: false,
        });
    }
    for (n, piece) in choice.pieces.iter().enumerate() {
        if let Some((x, y)) = piece.at {
            let spot = &mut table.spots[n];
            spot.at = (x.ticks() as f64, y.ticks() as f64);
            (spot.is_down, spot.is_held) = (true, true);
        }
    }
    for round in 0..=ROUNDS {
        for (n, piece) in choice.pieces.iter().enumerate() {
            if !table.spots[n].is_held {
                let from = first_turn + n as f64 * 2.4 + round as f64 * 0.1;
                table.lay(n, from, piece.turn.is_none());
            }
        }
    }
    (0..things.len()).map(|n| table.told(n)).collect()
}

/// How far a piece is turned where she didn't: a little, as hands do.
fn usual_turn(form: Form, by: f64) -> f64 {
    match form {
        Form::Leaf => by * 75.0,
        Form::Phrase => by * 5.0,
        Form::Flag => by * 9.0,
        _ if form.is_round() => 0.0,
        _ => by * 16.0,
    }
    .round()
}

struct Spot {
    at: (f64, f64),
    turn: f64,
    is_down: bool,
    is_held: bool,
}

struct Table<'a> {
    cluster: Span,
    things: &'a [&'a Thing],
    around: &'a Surroundings,
    spots: Vec<Spot>,
    /// How far from the middle each piece belongs: the larger, the nearer.
    belongs: Vec<f64>,
    reach: f64,
}

impl<'a> Table<'a> {
    fn new(cluster: Span, things: &'a [&'a Thing], around: &'a Surroundings) -> Table<'a> {
        let reach = cluster.w().min(cluster.h()).max(0.5 * INCH) / 2.0;
        let mut by_area: Vec<usize> = (0..things.len()).collect();
        by_area.sort_by(|a, b| things[*b].area().total_cmp(&things[*a].area()));
        let mut belongs = vec![0.0; things.len()];
        let last = (things.len().max(2) - 1) as f64;
        for (rank, n) in by_area.into_iter().enumerate() {
            belongs[n] = reach * 0.95 * (rank as f64 / last).sqrt();
        }
        Table {
            cluster,
            things,
            around,
            spots: Vec::with_capacity(things.len()),
            belongs,
            reach,
        }
    }

    fn bounds_at(&self, n: usize, at: (f64, f64), turn: f64) -> Span {
        let thing = self.things[n];
        let (w, h) = (
            thing.size.w.ticks() as f64 / 2.0,
            thing.size.h.ticks() as f64 / 2.0,
        );
        let flat = Span {
            l: at.0 - w,
            t: at.1 - h,
            r: at.0 + w,
            b: at.1 + h,
        };
        flat.turned_bounds(turn, thing.form.is_round())
    }

    /// Lays a piece where it costs least, with all others as they lie.
    fn lay(&mut self, n: usize, from: f64, may_turn: bool) {
        let middle = (self.cluster.cx(), self.cluster.cy());
        let own = self.spots[n].turn;
        let leaf = may_turn && self.things[n].form == Form::Leaf;
        let mut best: Option<(f64, (f64, f64), f64)> = None;
        let rings = RINGS
            .iter()
            .flat_map(|ring| (0..DIRECTIONS).map(move |d| (*ring, d)));
        for (ring, direction) in std::iter::once((0.0, 0)).chain(rings) {
            let angle = from + TAU * direction as f64 / DIRECTIONS as f64;
            let away = turned((ring * self.reach, 0.0), angle.to_degrees());
            let at = (middle.0 + away.0, middle.1 + away.1);
            // Leaves fan out from the middle.
            let turn = if leaf && ring > 0.0 {
                angle.to_degrees().rem_euclid(360.0).round()
            } else {
                own
            };
            let cost = self.cost(n, at, turn);
            if best.is_none_or(|(least, _, _)| cost < least - 1e-9) {
                best = Some((cost, at, turn));
            }
        }
        if let Some((_, at, turn)) = best {
            let spot = &mut self.spots[n];
            (spot.at, spot.turn, spot.is_down) = (at, turn, true);
        }
    }

    fn cost(&self, n: usize, at: (f64, f64), turn: f64) -> f64 {
        let bounds = self.bounds_at(n, at, turn);
        let square = |area: f64| area / INCH / INCH;
        let own = square(bounds.area()).max(1e-6);
        let hidden: f64 = self
            .around
            .in_sight
            .iter()
            .map(|k| bounds.shared_area(*k))
            .sum();
        let off = bounds.area() - bounds.shared_area(self.around.page);
        let hides: f64 = self
            .around
            .to_hide
            .iter()
            .map(|k| bounds.shared_area(*k))
            .sum();
        let middle = (self.cluster.cx(), self.cluster.cy());
        let away = (at.0 - middle.0).hypot(at.1 - middle.1);
        let misplaced = ((away - self.belongs[n]) / INCH).powi(2);
        let is_there = |m: &usize| *m != n && self.spots[*m].is_down;
        let mut touches = 0.0_f64;
        let mut heaped = 0.0;
        for m in (0..self.things.len()).filter(is_there) {
            let other = self.bounds_at(m, self.spots[m].at, self.spots[m].turn);
            let over = square(bounds.shared_area(other));
            touches = touches.max(over / own.min(square(other.area()).max(1e-6)));
            let (lower, lower_area) = if m < n {
                (self.things[m].form, square(other.area()))
            } else {
                (self.things[n].form, own)
            };
            let hidden = over / lower_area.max(1e-6);
            let most = if lower.is_base() { 0.9 } else { MOST_HIDDEN };
            heaped += (hidden - most).max(0.0) * lower_area * 2.0;
            if lower == Form::Phrase && over > 0.0 {
                heaped += over * 4.0;
            }
            // Two small things on one spot are one.
            heaped += over * 0.25;
        }
        let alone = if self.things.len() > 1 && touches < LEAST_OVER {
            own.max(0.2)
        } else {
            0.0
        };
        let amiss = hidden + off.max(0.0);
        let step = if amiss > NOTHING { FIRST_OF_ALL } else { 0.0 };
        step + square(amiss) * IN_SIGHT - square(hides) * TO_HIDE + misplaced + heaped + alone
    }

    fn told(&self, n: usize) -> PlacedPiece {
        let spot = &self.spots[n];
        let bounds = self.bounds_at(n, spot.at, spot.turn);
        let hides = self
            .around
            .in_sight
            .iter()
            .any(|k| bounds.shared_area(*k) > NOTHING);
        PlacedPiece {
            piece: n,
            at: spot.at,
            turn: spot.turn,
            bounds,
            hides,
            off_page: !bounds.is_in(self.around.page, 1.0),
        }
    }
}
