//! How far gaps are squeezed to make a line, or lines, fit.

use crate::length::Length;

/// The least, the best and the most that a gap may be.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Bounds {
    /// Never less.
    pub least: Length,
    /// Where there is room.
    pub best: Length,
    /// Never more.
    pub most: Length,
}

impl Bounds {
    fn ticks(self) -> (f64, f64, f64) {
        let ticks = |l: Length| l.ticks() as f64;
        (ticks(self.least), ticks(self.best), ticks(self.most))
    }
}

/// Gaps that fit, and how far they are from the best.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Squeezed {
    /// The sum over gaps of the squared share by which each is off.
    pub(super) badness: f64,
    /// In ticks.
    pub(super) gap: f64,
    /// In ticks.
    pub(super) word_gap: f64,
}

/// The best gaps for so much room: `gaps` of one kind and `word_gaps` of the other, each kind alike. The least of a sum of squares under one
/// linear limit: both give way in proportion to the square of their range (Lagrange), and what reaches its least stays there.
pub(super) fn squeeze(
    room: i64,
    (gaps, gap): (usize, Bounds),
    (word_gaps, word_gap): (usize, Bounds),
) -> Option<Squeezed> {
    let (n, m) = (gaps as f64, word_gaps as f64);
    let (least, best, most) = gap.ticks();
    let (word_least, word_best, word_most) = word_gap.ticks();
    let room = room as f64;
    if n * least + m * word_least > room {
        return None;
    }
    let over = n * best + m * word_best - room;
    if over <= 0.0 {
        return Some(Squeezed {
            badness: 0.0,
            gap: best,
            word_gap: word_best,
        });
    }
    let range = if gaps > 0 { most - least } else { 0.0 };
    let word_range = if word_gaps > 0 {
        word_most - word_least
    } else {
        0.0
    };
    let give = over / (n * range * range + m * word_range * word_range);
    let mut a = best - give * range * range;
    let mut b = word_best - give * word_range * word_range;
    if gaps > 0 && a < least {
        a = least;
        b = if word_gaps > 0 { (room - n * a) / m } else { b };
    } else if word_gaps > 0 && b < word_least {
        b = word_least;
        a = if gaps > 0 { (room - m * b) / n } else { a };
    }
    let (a, b) = (a.max(least), b.max(word_least));
    let off = |count: f64, at: f64, best: f64, range: f64| {
        if range > 0.0 {
            count * ((at - best) / range).powi(2)
        } else {
            0.0
        }
    };
    Some(Squeezed {
        badness: off(n, a, best, range) + off(m, b, word_best, word_range),
        gap: a,
        word_gap: b,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn bounds(least: i64, best: i64, most: i64) -> Bounds {
        let [least, best, most] = [least, best, most].map(Length::from_ticks);
        Bounds { least, best, most }
    }

    #[test]
    fn with_room_gaps_are_best_and_without_there_are_none() {
        let (gap, word) = (bounds(10, 20, 40), bounds(30, 60, 90));
        let found = squeeze(1_000, (3, gap), (1, word)).map(|s| (s.badness, s.gap, s.word_gap));
        assert_eq!(found, Some((0.0, 20.0, 60.0)));
        assert_eq!(squeeze(59, (3, gap), (1, word)), None);
    }

    #[test]
    fn squeezed_gaps_use_up_the_room_and_no_other_split_is_better() {
        let (gap, word) = (bounds(10, 20, 40), bounds(30, 60, 90));
        for room in [60, 75, 90, 105, 119] {
            let found = squeeze(room, (3, gap), (1, word)).expect("there is room");
            let used = 3.0 * found.gap + found.word_gap;
            assert!((used - room as f64).abs() < 1e-6, "{room}: {used}");
            for at in 100..=200 {
                let a = f64::from(at) / 10.0;
                let b = room as f64 - 3.0 * a;
                if (30.0..=60.0).contains(&b) {
                    let other =
                        3.0 * ((a - 20.0) / 30.0_f64).powi(2) + ((b - 60.0) / 60.0_f64).powi(2);
                    assert!(found.badness <= other + 1e-9, "{room}: {a} {b}");
                }
            }
        }
    }
}
