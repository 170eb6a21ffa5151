//! Marks by parity: which lines go to even marks and which to odd ones, so that all wished equalities can come true on the ruler.
//!
//! Blocks on one centre line need marks whose sums are even alike; with many such lines, rounding each to its nearest mark leaves half of
//! them half a step off. Counted in half steps every wished equality is a linear equation over two elements (even, odd). Elimination with
//! the lines that care least about their mark as pivots leaves those that care most at their nearest mark (the greedy choice of a matroid's
//! best basis), and the pivots follow.

use super::{Cost, Lattice};
use crate::reading::INCH;
use num_integer::gcd;

/// What a factor or constant may be off by and still be whole.
const WHOLE: f64 = 1e-3;

/// An equation over even and odd: which unknowns stand in it, and in the bit behind the last of them what they sum up to.
#[derive(Clone)]
struct Bits(Vec<u64>);

impl Bits {
    fn none(len: usize) -> Bits {
        Bits(vec![0; len.div_ceil(64)])
    }

    fn has(&self, n: usize) -> bool {
        self.0[n / 64] >> (n % 64) & 1 == 1
    }

    fn flip(&mut self, n: usize) {
        self.0[n / 64] ^= 1 << (n % 64);
    }

    fn add(&mut self, other: &Bits) {
        self.0.iter_mut().zip(&other.0).for_each(|(a, b)| *a ^= b);
    }
}

/// The equations solved for one unknown each, the first that stands in it, so that it stands in no other. What contradicts those before it is left out.
fn eliminated(equations: impl Iterator<Item = Bits>, unknowns: usize) -> Vec<(usize, Bits)> {
    let mut solved: Vec<(usize, Bits)> = Vec::new();
    for mut row in equations {
        for (pivot, known) in &solved {
            if row.has(*pivot) {
                row.add(known);
            }
        }
        let Some(pivot) = (0..unknowns).find(|n| row.has(*n)) else {
            continue;
        };
        for (_, known) in solved.iter_mut().filter(|(_, known)| known.has(pivot)) {
            known.add(&row);
        }
        solved.push((pivot, row));
    }
    solved
}

impl Lattice {
    /// With its lines on marks of such a parity, then improved; `solved` are the variables' places in inches.
    pub(super) fn by_parity(mut self, solved: &[f64]) -> Lattice {
        let mut marks = vec![0.0; self.lines.len()];
        for (value, (line, offset)) in solved.iter().zip(&self.line_of) {
            marks[*line] =
                (value * INCH - offset - self.lines[*line].origin) / self.lines[*line].step;
        }
        // Those in the middle between two marks first.
        let off = |line: &usize| (marks[*line] - marks[*line].round()).abs();
        let mut order: Vec<usize> = (0..self.lines.len())
            .filter(|l| !self.lines[*l].fixed)
            .collect();
        order.sort_by(|a, b| off(b).total_cmp(&off(a)).then(a.cmp(b)));
        let mut place = vec![usize::MAX; self.lines.len()];
        order
            .iter()
            .enumerate()
            .for_each(|(n, line)| place[*line] = n);
        let equations =
            (0..self.terms.len()).filter_map(|term| self.equation(term, &place, order.len()));
        let rows = eliminated(equations, order.len());
        let mut odd: Vec<bool> = order
            .iter()
            .map(|line| marks[*line].round() as i64 % 2 != 0)
            .collect();
        for (pivot, row) in &rows {
            let others = (0..order.len())
                .filter(|n| n != pivot && row.has(*n) && odd[*n])
                .count();
            odd[*pivot] = (others % 2 == 1) != row.has(order.len());
        }
        for (line, odd) in order.into_iter().zip(odd) {
            let nearest = marks[line].round() as i64;
            let other = if marks[line] > nearest as f64 {
                nearest + 1
            } else {
                nearest - 1
            };
            let to = if (nearest % 2 != 0) == odd {
                nearest
            } else {
                other
            };
            self.shift(line, to - self.lines[line].steps);
        }
        self.improve();
        self.repair();
        self.mend();
        self
    }

    /// A wished equality over even and odd, each line at its place among the unknowns; none where it can't be told in whole half steps.
    fn equation(&self, term: usize, place: &[usize], unknowns: usize) -> Option<Bits> {
        let row = &self.terms[term];
        if !matches!(row.cost, Cost::Wish(..)) {
            return None;
        }
        let whole =
            |value: f64| ((value - value.round()).abs() < WHOLE).then_some(value.round() as i64);
        let half = row
            .terms
            .iter()
            .map(|(line, _)| self.lines[*line].step)
            .fold(f64::INFINITY, f64::min)
            / 2.0;
        let free = row
            .terms
            .iter()
            .filter(|(line, _)| !self.lines[*line].fixed);
        let factors: Vec<(usize, i64)> = free
            .map(|(line, factor)| whole(factor * self.lines[*line].step / half).map(|f| (*line, f)))
            .collect::<Option<_>>()?;
        let common = factors
            .iter()
            .fold(0, |known, (_, factor)| gcd(known, *factor));
        let constant = row
            .terms
            .iter()
            .map(|(line, factor)| factor * self.lines[*line].origin)
            .sum::<f64>()
            + row.constant;
        let odd = whole(constant / half / common as f64)? % 2 != 0;
        let mut bits = Bits::none(unknowns + 1);
        factors
            .iter()
            .filter(|(_, factor)| factor / common % 2 != 0)
            .for_each(|(line, _)| bits.flip(place[*line]));
        if odd {
            bits.flip(unknowns);
        }
        Some(bits)
    }

    /// What all rows and pulls cost.
    pub(super) fn total(&self) -> f64 {
        (0..self.terms.len()).map(|term| self.cost(term)).sum()
    }
}

#[cfg(test)]
mod tests {
    use super::{Bits, eliminated};
    use proptest::prelude::*;

    fn bits(of: &[usize], len: usize) -> Bits {
        let mut found = Bits::none(len);
        of.iter().for_each(|n| found.flip(*n));
        found
    }

    #[test]
    fn the_first_unknowns_follow_from_the_last() {
        // a + b = 1, b + c = 0: with c even, b is even and a odd.
        let rows = eliminated([bits(&[0, 1, 3], 4), bits(&[1, 2], 4)].into_iter(), 3);
        assert_eq!(rows.iter().map(|r| r.0).collect::<Vec<_>>(), [0, 1]);
        assert!(rows[0].1.has(2) && rows[0].1.has(3) && !rows[0].1.has(1));
        assert!(rows[1].1.has(2) && !rows[1].1.has(3));
    }

    #[test]
    fn what_contradicts_is_left_out() {
        let rows = eliminated([bits(&[0, 1], 3), bits(&[0, 1, 2], 3)].into_iter(), 2);
        assert_eq!(rows.len(), 1);
    }

    proptest! {
        /// Whatever the free unknowns are, the pivots make every equation true that came from one assignment.
        #[test]
        fn pivots_make_consistent_equations_true(truth in proptest::collection::vec(any::<bool>(), 70), rows in proptest::collection::vec(proptest::collection::btree_set(0..70_usize, 1..6), 1..60)) {
            let equations: Vec<Bits> = rows.iter().map(|row| {
                let mut of: Vec<usize> = row.iter().copied().collect();
                if row.iter().filter(|n| truth[**n]).count() % 2 == 1 {
                    of.push(70);
                }
                bits(&of, 71)
            }).collect();
            let solved = eliminated(equations.iter().cloned(), 70);
            let mut odd = [false; 70];
            for (pivot, row) in &solved {
                let others = (0..70).filter(|n| n != pivot && row.has(*n) && odd[*n]).count();
                odd[*pivot] = (others % 2 == 1) != row.has(70);
            }
            for equation in &equations {
                let sum = (0..70).filter(|n| equation.has(*n) && odd[*n]).count() % 2 == 1;
                prop_assert_eq!(sum, equation.has(70));
            }
        }
    }
}
