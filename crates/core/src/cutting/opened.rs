//! A sheet that is being cut: its parts, and the cuts so far.

use super::job::{Area, CutJob, Stock};
use crate::geometry::Axis;

/// A part of a sheet; its number is its name.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Part {
    /// Which.
    pub number: usize,
    /// Where it lies on the sheet.
    pub area: Area,
}

/// A cut across a part. Along x it runs from left to right, `at` from the part's top; along y from top to bottom, `at` from its left.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Cut {
    /// The part that is cut.
    pub part: usize,
    /// Along which way it runs.
    pub along: Axis,
    /// Where.
    pub at: i64,
    /// The left or top one, and the other.
    pub makes: [usize; 2],
}

/// A piece that came out of a sheet.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct CutOut {
    /// Which, by its place among the job's pieces.
    pub piece: usize,
    /// The part that it is.
    pub part: Part,
    /// Whether it lies across.
    pub is_turned: bool,
}

/// Which of the two cuts that free a piece comes first.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum First {
    /// Whichever leaves the larger rest.
    Better,
    /// From left to right, below the piece.
    Across,
    /// From top to bottom, right of the piece.
    Down,
}

/// A sheet or scrap that is opened.
#[derive(Clone, Debug)]
pub struct Opened {
    /// Which, by its place among the job's stock.
    pub stock: usize,
    /// Which of these, from 1.
    pub copy: u32,
    /// Clean parts that nothing has been cut out of yet.
    pub free: Vec<Part>,
    /// The cuts, in order.
    pub cuts: Vec<Cut>,
    /// What came out.
    pub pieces: Vec<CutOut>,
    next: usize,
}

impl Opened {
    /// Opens a sheet: spoiled areas are cut away first. `way` chooses among the ways to do that.
    pub fn new(job: &CutJob, stock: usize, copy: u32, way: u64) -> Opened {
        let of = &job.stock[stock];
        let whole = Part {
            number: 0,
            area: Area {
                x: 0,
                y: 0,
                w: of.w,
                h: of.h,
            },
        };
        let mut sheet = Opened {
            stock,
            copy,
            free: Vec::new(),
            cuts: Vec::new(),
            pieces: Vec::new(),
            next: 1,
        };
        sheet.clear(job, of, whole, way);
        sheet
    }

    /// Cuts spoiled areas away from a part, until what is left of it is clean or wholly spoiled.
    fn clear(&mut self, job: &CutJob, of: &Stock, part: Part, way: u64) {
        if !of.spoiled.iter().any(|s| s.meets(part.area)) {
            self.free.push(part);
            return;
        }
        let ways = clearing_cuts(job, of, part.area);
        if ways.is_empty() {
            return;
        }
        // The first is the one that leaves the largest clean part.
        let (along, at) = ways[(way as usize) % ways.len()];
        let [a, b] = self.cut(part, along, at);
        self.clear(job, of, a, way / 4);
        self.clear(job, of, b, way / 4);
    }

    fn cut(&mut self, part: Part, along: Axis, at: i64) -> [Part; 2] {
        let Area { x, y, w, h } = part.area;
        let (a, b) = match along {
            Axis::X => (
                Area { x, y, w, h: at },
                Area {
                    x,
                    y: y + at,
                    w,
                    h: h - at,
                },
            ),
            Axis::Y => (
                Area { x, y, w: at, h },
                Area {
                    x: x + at,
                    y,
                    w: w - at,
                    h,
                },
            ),
        };
        let makes = [self.next, self.next + 1];
        self.next += 2;
        self.cuts.push(Cut {
            part: part.number,
            along,
            at,
            makes,
        });
        [
            Part {
                number: makes[0],
                area: a,
            },
            Part {
                number: makes[1],
                area: b,
            },
        ]
    }

    /// Cuts a piece out of the corner of a free part.
    pub fn take(&mut self, job: &CutJob, n: usize, piece: usize, is_turned: bool, first: First) {
        let p = &job.pieces[piece];
        let (w, h) = if is_turned { (p.h, p.w) } else { (p.w, p.h) };
        let mut part = self.free.swap_remove(n);
        for along in order(job, part.area, (w, h), first) {
            let at = match along {
                Axis::X => h,
                Axis::Y => w,
            };
            let whole = match along {
                Axis::X => part.area.h,
                Axis::Y => part.area.w,
            };
            if at < whole {
                let [kept, rest] = self.cut(part, along, at);
                part = kept;
                self.free.push(rest);
            }
        }
        self.pieces.push(CutOut {
            piece,
            part,
            is_turned,
        });
    }

    /// The largest clean part that is left, in square ticks.
    pub fn largest_left(&self) -> i128 {
        self.free.iter().map(|p| p.area.area()).max().unwrap_or(0)
    }

    /// The area of what came out of it.
    pub fn used(&self) -> i128 {
        self.pieces.iter().map(|p| p.part.area.area()).sum()
    }
}

/// The cuts along the edges of what spoils a part, the one that leaves the largest clean part first.
fn clearing_cuts(job: &CutJob, of: &Stock, part: Area) -> Vec<(Axis, i64)> {
    let mut found: Vec<(i128, Axis, i64)> = Vec::new();
    for spoiled in of.spoiled.iter().filter(|s| s.meets(part)) {
        for along in Axis::BOTH {
            let (start, length, from, to, across) = match along {
                Axis::X => (part.y, part.h, spoiled.y, spoiled.y + spoiled.h, part.w),
                Axis::Y => (part.x, part.w, spoiled.x, spoiled.x + spoiled.w, part.h),
            };
            if across > job.reach {
                continue;
            }
            let before = (from - start).div_euclid(job.finest) * job.finest;
            let after = -(-(to - start)).div_euclid(job.finest) * job.finest;
            for (at, clean) in [(before, before), (after, length - after)] {
                if at > 0 && at < length && !found.iter().any(|f| (f.1, f.2) == (along, at)) {
                    found.push((i128::from(clean) * i128::from(across), along, at));
                }
            }
        }
    }
    found.sort_by_key(|f| std::cmp::Reverse(f.0));
    found
        .into_iter()
        .map(|(_, along, at)| (along, at))
        .collect()
}

/// Whether a trimmer can free a piece of a size from the corner of a part.
pub(super) fn can_take(job: &CutJob, part: Area, (w, h): (i64, i64)) -> bool {
    if w > part.w || h > part.h {
        return false;
    }
    let (across, down) = (h < part.h, w < part.w);
    match (across, down) {
        (false, false) => true,
        (true, false) => part.w <= job.reach,
        (false, true) => part.h <= job.reach,
        (true, true) => {
            (part.w <= job.reach && h <= job.reach) || (part.h <= job.reach && w <= job.reach)
        }
    }
}

/// The two cuts that free a piece, in their order: as wished, but no cut longer than the trimmer reaches.
fn order(job: &CutJob, part: Area, (w, h): (i64, i64), first: First) -> [Axis; 2] {
    let across_first = part.w <= job.reach && h <= job.reach;
    let down_first = part.h <= job.reach && w <= job.reach;
    let wished = match first {
        First::Across => true,
        First::Down => false,
        First::Better => {
            // Below the piece over the part's whole width, or beside it over its whole height.
            let below = i128::from(part.w) * i128::from(part.h - h);
            let beside = i128::from(part.w - w) * i128::from(part.h);
            below >= beside
        }
    };
    let across = if wished {
        across_first || !down_first
    } else {
        across_first && !down_first
    };
    if across {
        [Axis::X, Axis::Y]
    } else {
        [Axis::Y, Axis::X]
    }
}
