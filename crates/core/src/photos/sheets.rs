//! Photos laid on sheets of photo paper: several on one where they fit, with room between them for the blade.
//!
//! Sheets are divided by cuts from edge to edge, the largest pieces first, each into the free part that it fills best. (The cut planner
//! will do better; its sheets and pieces are the same.)

use crate::geometry::{Rect, Size};
use crate::length::Length;

/// A photo to print.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ToPrint {
    /// The print.
    pub id: String,
    /// Its size, with the bleed.
    pub size: Size,
}

/// Where a photo lies on a sheet.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OnSheet {
    /// The print.
    pub id: String,
    /// Where, from the sheet's left top corner; its sides are exchanged where it is turned.
    pub rect: Rect,
    /// It lies on its side.
    pub turned: bool,
}

/// A sheet of photo paper, and what the printer does not reach of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Paper {
    /// Its size.
    pub size: Size,
    /// Along its edges.
    pub margin: Length,
    /// Between two photos.
    pub gap: Length,
}

/// Sheets, and what is larger than one.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Sheets {
    /// What lies on each.
    pub sheets: Vec<Vec<OnSheet>>,
    /// Photos that no such sheet holds.
    pub too_large: Vec<String>,
}

/// Lays photos on sheets of a paper.
#[must_use]
pub fn on_sheets(photos: &[ToPrint], paper: Paper) -> Sheets {
    let inner = Size {
        w: paper.size.w - paper.margin - paper.margin,
        h: paper.size.h - paper.margin - paper.margin,
    };
    let mut order: Vec<&ToPrint> = photos.iter().collect();
    let longer = |s: Size| s.w.max(s.h);
    order.sort_by_key(|p| std::cmp::Reverse((longer(p.size), p.size.w.min(p.size.h))));
    let mut laid = Sheets::default();
    let mut free: Vec<Vec<Rect>> = Vec::new();
    for photo in order {
        let fits_empty = |s: Size| s.w <= inner.w && s.h <= inner.h;
        if !fits_empty(photo.size) && !fits_empty(turned(photo.size)) {
            laid.too_large.push(photo.id.clone());
            continue;
        }
        let place = best(&free, photo.size).unwrap_or_else(|| {
            free.push(vec![Rect {
                x: paper.margin,
                y: paper.margin,
                w: inner.w,
                h: inner.h,
            }]);
            laid.sheets.push(Vec::new());
            best(&free, photo.size).expect("an empty sheet holds it")
        });
        let part = free[place.sheet].swap_remove(place.part);
        let size = if place.turned {
            turned(photo.size)
        } else {
            photo.size
        };
        free[place.sheet].extend(divided(part, size, paper.gap));
        laid.sheets[place.sheet].push(OnSheet {
            id: photo.id.clone(),
            rect: Rect {
                x: part.x,
                y: part.y,
                w: size.w,
                h: size.h,
            },
            turned: place.turned,
        });
    }
    laid
}

const fn turned(size: Size) -> Size {
    Size {
        w: size.h,
        h: size.w,
    }
}

struct Place {
    sheet: usize,
    part: usize,
    turned: bool,
}

/// The free part that leaves the least beside the photo; of equal ones that on the earliest sheet.
fn best(free: &[Vec<Rect>], size: Size) -> Option<Place> {
    let mut found: Option<(Length, Place)> = None;
    for (sheet, parts) in free.iter().enumerate() {
        for (part, rect) in parts.iter().enumerate() {
            for on_side in [false, true] {
                let s = if on_side { turned(size) } else { size };
                if s.w > rect.w || s.h > rect.h {
                    continue;
                }
                let left = (rect.w - s.w).min(rect.h - s.h);
                if found.as_ref().is_none_or(|(least, _)| left < *least) {
                    let place = Place {
                        sheet,
                        part,
                        turned: on_side,
                    };
                    found = Some((left, place));
                }
            }
        }
    }
    found.map(|(_, place)| place)
}

/// What is left of a part when a photo lies in its corner: two parts, cut so that the larger one is as large as can be.
fn divided(part: Rect, size: Size, gap: Length) -> Vec<Rect> {
    let (right, below) = (part.w - size.w - gap, part.h - size.h - gap);
    let beside_first = right > below;
    let beside = Rect {
        x: part.x + size.w + gap,
        y: part.y,
        w: right,
        h: if beside_first { part.h } else { size.h },
    };
    let under = Rect {
        x: part.x,
        y: part.y + size.h + gap,
        w: if beside_first { size.w } else { part.w },
        h: below,
    };
    let is_part = |r: &Rect| r.w > Length::ZERO && r.h > Length::ZERO;
    [beside, under].into_iter().filter(is_part).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn eighths(w: i64, h: i64) -> Size {
        Size {
            w: Length::inches(w, 8),
            h: Length::inches(h, 8),
        }
    }

    fn paper(w: i64, h: i64, gap: i64) -> Paper {
        Paper {
            size: eighths(w, h),
            margin: Length::ZERO,
            gap: Length::inches(gap, 8),
        }
    }

    fn to_print(id: usize, size: Size) -> ToPrint {
        ToPrint {
            id: id.to_string(),
            size,
        }
    }

    #[test]
    fn two_of_three_by_four_lie_on_one_four_by_six() {
        let two = [to_print(1, eighths(24, 32)), to_print(2, eighths(24, 32))];
        let laid = on_sheets(&two, paper(32, 48, 0));
        assert_eq!(laid.sheets.len(), 1);
        assert!(laid.sheets[0].iter().all(|p| p.turned));
        // With room for the blade they no longer do.
        assert_eq!(on_sheets(&two, paper(32, 48, 1)).sheets.len(), 2);
    }

    #[test]
    fn what_is_larger_than_the_sheet_is_told() {
        let laid = on_sheets(
            &[to_print(1, eighths(50, 33)), to_print(2, eighths(48, 32))],
            paper(32, 48, 0),
        );
        assert_eq!(laid.too_large, ["1"]);
        assert_eq!(laid.sheets.len(), 1);
    }

    proptest! {
        #[test]
        fn each_photo_lies_once_within_a_sheet_and_apart(
            sizes in prop::collection::vec((4..60i64, 4..60i64), 1..24), gap in 0..3i64,
        ) {
            let photos: Vec<ToPrint> = sizes.iter().enumerate().map(|(n, (w, h))| to_print(n, eighths(*w, *h))).collect();
            let paper = paper(64, 88, gap);
            let laid = on_sheets(&photos, paper);
            let mut ids: Vec<String> = laid.sheets.iter().flatten().map(|p| p.id.clone()).chain(laid.too_large.clone()).collect();
            ids.sort_unstable_by_key(|id| id.parse::<usize>().unwrap_or_default());
            prop_assert_eq!(ids, photos.iter().map(|p| p.id.clone()).collect::<Vec<_>>());
            for sheet in &laid.sheets {
                for (n, a) in sheet.iter().enumerate() {
                    let own = photos.iter().find(|p| p.id == a.id).map(|p| if a.turned { turned(p.size) } else { p.size });
                    prop_assert_eq!(own, Some(Size { w: a.rect.w, h: a.rect.h }));
                    prop_assert!(a.rect.right() <= paper.size.w && a.rect.bottom() <= paper.size.h);
                    for b in &sheet[n + 1..] {
                        let apart = a.rect.right() + paper.gap <= b.rect.x || b.rect.right() + paper.gap <= a.rect.x
                            || a.rect.bottom() + paper.gap <= b.rect.y || b.rect.bottom() + paper.gap <= a.rect.y;
                        prop_assert!(apart, "{:?} and {:?}", a, b);
                    }
                }
            }
        }
    }
}
