//! In which order letters, or the units of a row, are laid down so that the last one doesn't run out of line.

/// How a maker lays a line of letters or units.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Laying {
    /// The first, the last, the middle, then halving what lies between.
    #[default]
    Halving,
    /// From the middle, to both sides in turn.
    CentreOut,
}

impl Laying {
    /// The names that documents use.
    pub const NAMES: [&'static str; 2] = ["halving", "centre-out"];

    /// The way of that document name.
    pub fn from_name(name: &str) -> Option<Laying> {
        match name {
            "halving" => Some(Laying::Halving),
            "centre-out" => Some(Laying::CentreOut),
            _ => None,
        }
    }

    /// Which of so many letters is laid first, second and so on; each by its place in the line.
    #[must_use]
    pub fn order(self, letters: usize) -> Vec<usize> {
        match self {
            Laying::Halving => halving(letters),
            Laying::CentreOut => {
                let middle = letters.saturating_sub(1) / 2;
                let right = (middle..letters).map(|at| (2 * (at - middle), at));
                let left = (0..middle).map(|at| (2 * (middle - at) - 1, at));
                let mut by_turn: Vec<(usize, usize)> = right.chain(left).collect();
                by_turn.sort_unstable();
                by_turn.into_iter().map(|(_, at)| at).collect()
            }
        }
    }
}

fn halving(letters: usize) -> Vec<usize> {
    if letters < 3 {
        return (0..letters).collect();
    }
    let mut order = vec![0, letters - 1];
    let mut open = std::collections::VecDeque::from([(0, letters - 1)]);
    while let Some((from, to)) = open.pop_front() {
        if to - from < 2 {
            continue;
        }
        let middle = (from + to) / 2;
        order.push(middle);
        open.extend([(from, middle), (middle, to)]);
    }
    order
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_letter_is_laid_once() {
        for count in 0..40 {
            for laying in [Laying::Halving, Laying::CentreOut] {
                let mut order = laying.order(count);
                order.sort_unstable();
                assert_eq!(order, (0..count).collect::<Vec<_>>(), "{laying:?} {count}");
            }
        }
    }

    #[test]
    fn the_first_the_last_and_the_middle_come_first() {
        assert_eq!(Laying::Halving.order(9)[..3], [0, 8, 4]);
        assert_eq!(Laying::CentreOut.order(5), [2, 1, 3, 0, 4]);
    }
}
