//! Why a row stands in the program.

/// What a row of the program stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Reason {
    /// A pin of the request.
    Pin(usize),
    /// The margin, or the page's edge, for an item.
    Margin(usize),
    /// The fold with its guard, for an item.
    Fold(usize),
    /// An item's bleed.
    Bleed(usize),
    /// A mat's border.
    Mat(usize),
    /// Two photos that were apart.
    Apart(usize, usize),
    /// An item's prints.
    Print(usize),
    /// An item is at least a little.
    Size(usize),
    /// The prints of a split slot.
    Cells(usize),
    /// A wish between items, or about one twice: never part of a conflict.
    Wish(Wish, usize, usize),
}

/// What a soft row wishes for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Wish {
    /// Left of, above, containing, overlapping.
    Relation,
    /// Edges or centres on one line.
    Line,
    /// Touching.
    Contact,
    /// A gap that stays open.
    Gap,
    /// Equal sizes or gaps.
    Equal,
    /// A size within bounds.
    Bounds,
    /// A circle that stays one, units that stay square.
    Round,
    /// A face that is not trimmed away.
    Face,
    /// A grid's unit, or a title's word, that the fold does not cut.
    Unit,
}

impl Reason {
    /// The items that it is about.
    pub(crate) fn items(self) -> Vec<usize> {
        match self {
            Reason::Pin(_) => Vec::new(),
            Reason::Margin(i)
            | Reason::Fold(i)
            | Reason::Bleed(i)
            | Reason::Mat(i)
            | Reason::Print(i)
            | Reason::Size(i)
            | Reason::Cells(i) => {
                vec![i]
            }
            Reason::Apart(a, b) | Reason::Wish(_, a, b) => vec![a, b],
        }
    }

    /// The limit's name in a conflict.
    pub(crate) const fn limit(self) -> Option<&'static str> {
        match self {
            Reason::Pin(_) | Reason::Wish(..) => None,
            Reason::Margin(_) => Some("margin"),
            Reason::Fold(_) => Some("fold_guard"),
            Reason::Bleed(_) => Some("bleed"),
            Reason::Mat(_) => Some("mat"),
            Reason::Apart(..) => Some("photos_apart"),
            Reason::Print(_) => Some("prints"),
            Reason::Size(_) => Some("size"),
            Reason::Cells(_) => Some("split_slot"),
        }
    }
}
