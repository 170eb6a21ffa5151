//! From lines of clauses to a sketch: what is left out is filled in, what can't be meant is told.

use super::WordError;
use super::grammar::{At, Clause, Line, Lines, Place, Written, at_place, value};
use crate::defaults::Defaults;
use crate::geometry::{Edge, Rect, Size};
use crate::length::{Length, Unit};
use crate::sketch::{
    Block, Canvas, Grid, Kind, MOST_BLOCKS, MOST_TURN, Ring, Shape, Sketch, UnitShape,
};
use serde_json::Map;
use std::collections::{BTreeMap, BTreeSet};

/// How many blocks' ids are offered in place of one that is none.
const MOST_OFFERED: usize = 24;

/// A block's line with its name settled.
struct Named<'a> {
    kind: &'a At<Kind>,
    id: String,
    clauses: &'a [At<Clause>],
}

/// The sketch that lines mean.
pub(super) fn sketch(lines: Lines<'_>, maker: &Defaults) -> Result<Sketch, Vec<WordError>> {
    let Lines { text, lines } = lines;
    let page = Size {
        w: Length::inches(12, 1),
        h: Length::inches(12, 1),
    };
    let mut head = Head {
        text,
        maker,
        unit: Unit::Inch,
        canvas: Canvas { page, pages: 1 },
    };
    let mut errors = Vec::new();
    let mut name = String::new();
    for line in &lines {
        match line {
            Line::Name(given) => name.clone_from(given),
            Line::Page(pages, w, h, unit) => errors.extend(head.set(*pages, w, h, *unit).err()),
            Line::Block { .. } => {}
        }
    }
    let named = names(text, &lines, &mut errors);
    if let Some(beyond) = named.get(MOST_BLOCKS) {
        errors.push(at_place(
            text,
            &beyond.kind.place,
            "one block too many".to_owned(),
            vec![format!("at most {MOST_BLOCKS} blocks")],
        ));
        return Err(errors);
    }
    let blocks = placed(&head, &named, &mut errors);
    missing_neighbours(text, &named, &mut errors);
    errors.sort_by_key(|e| (e.line, e.column));
    errors.dedup();
    if !errors.is_empty() {
        return Err(errors);
    }
    Ok(Sketch {
        unit: head.unit,
        name,
        canvas: head.canvas,
        blocks: blocks.into_iter().flatten().collect(),
        other: Map::new(),
    })
}

/// Each line's block, unless it is wrong. Mats are placed by what they frame, so that comes first; a mat around a mat comes after that one.
fn placed(head: &Head<'_>, named: &[Named<'_>], errors: &mut Vec<WordError>) -> Vec<Option<Block>> {
    let mut rects: BTreeMap<&str, Rect> = BTreeMap::new();
    let mut blocks: Vec<Option<Block>> = vec![None; named.len()];
    let mut waiting: Vec<usize> = (0..named.len()).collect();
    loop {
        let before = waiting.len();
        waiting.retain(|n| {
            let line = &named[*n];
            let frames = framed(line).filter(|_| !is_sized(line));
            if frames.is_some_and(|f| !rects.contains_key(f.value.as_str())) {
                // What is framed may stand further down; what is no block at all is told elsewhere.
                return true;
            }
            match head.block(line, &rects) {
                Ok(block) => {
                    rects.insert(&line.id, block.rect);
                    blocks[*n] = Some(block);
                }
                Err(error) => errors.push(error),
            }
            false
        });
        if waiting.len() == before {
            return blocks;
        }
    }
}

/// Tells of what a block is around or on that is no block.
fn missing_neighbours(text: &str, named: &[Named<'_>], errors: &mut Vec<WordError>) {
    let known: BTreeSet<&str> = named.iter().map(|l| l.id.as_str()).collect();
    for line in named {
        for other in line.clauses.iter().filter_map(|c| {
            if let Clause::Around(id) | Clause::On(id) = &c.value {
                Some(id)
            } else {
                None
            }
        }) {
            if other.value == line.id || !known.contains(other.value.as_str()) {
                let ids: Vec<String> = named
                    .iter()
                    .filter(|l| l.id != line.id)
                    .take(MOST_OFFERED)
                    .map(|l| l.id.clone())
                    .collect();
                let allowed = if ids.is_empty() {
                    vec!["the id of another block".to_owned()]
                } else {
                    ids
                };
                errors.push(at_place(
                    text,
                    &other.place,
                    format!("“{}”, which is no block here", other.value),
                    allowed,
                ));
            }
        }
    }
}

/// Ids: those that were given, and for the rest the kind's letter and the next number that is free.
fn names<'a>(text: &str, lines: &'a [Line], errors: &mut Vec<WordError>) -> Vec<Named<'a>> {
    let mut taken: BTreeSet<String> = BTreeSet::new();
    for line in lines {
        if let Line::Block { id: Some(id), .. } = line
            && !taken.insert(id.value.clone())
        {
            errors.push(at_place(
                text,
                &id.place,
                format!("the id {} a second time", id.value),
                vec!["an id of its own".to_owned()],
            ));
        }
    }
    // The number that each kind's next id begins to look from.
    let mut next: BTreeMap<char, u32> = BTreeMap::new();
    let mut named = Vec::new();
    for line in lines {
        let Line::Block { kind, id, clauses } = line else {
            continue;
        };
        let id = id.as_ref().map(|i| i.value.clone()).unwrap_or_else(|| {
            let letter = letter(kind.value);
            let number = next.entry(letter).or_insert(1);
            while !taken.insert(format!("{letter}{number}")) {
                *number += 1;
            }
            format!("{letter}{number}")
        });
        named.push(Named { kind, id, clauses });
    }
    named
}

/// The letter that a kind's ids begin with.
const fn letter(kind: Kind) -> char {
    match kind {
        Kind::Photo => 'p',
        Kind::Mat => 'm',
        Kind::Paper => 'b',
        Kind::Strip => 's',
        Kind::Grid => 'g',
        Kind::Ring => 'r',
        Kind::Title => 't',
        Kind::Journal => 'j',
        Kind::Cluster => 'c',
        Kind::Accent => 'a',
        Kind::Wash => 'w',
    }
}

/// The first of a line's clauses that says it.
fn first<T>(line: &Named<'_>, says: impl Fn(&Clause) -> Option<T>) -> Option<T> {
    line.clauses.iter().find_map(|c| says(&c.value))
}

/// The edges that a line's block runs off.
fn bleed(line: &Named<'_>) -> Vec<Edge> {
    let mut bleed: Vec<Edge> = line
        .clauses
        .iter()
        .flat_map(|c| match &c.value {
            Clause::Off(edges) => edges.clone(),
            Clause::Full { wide: true } => vec![Edge::Left, Edge::Right],
            Clause::Full { wide: false } => vec![Edge::Top, Edge::Bottom],
            _ => Vec::new(),
        })
        .collect();
    bleed.sort_unstable();
    bleed.dedup();
    bleed
}

fn framed<'a>(line: &Named<'a>) -> Option<&'a At<String>> {
    line.clauses.iter().find_map(|c| {
        if let Clause::Around(id) = &c.value {
            Some(id)
        } else {
            None
        }
    })
}

fn thickness<'a>(line: &Named<'a>) -> Option<&'a Written> {
    line.clauses.iter().find_map(|c| {
        if let Clause::Thick(length) = &c.value {
            Some(length)
        } else {
            None
        }
    })
}

/// Whether a line says its own width and height.
fn is_sized(line: &Named<'_>) -> bool {
    line.clauses
        .iter()
        .any(|c| matches!(c.value, Clause::Size(..)))
}

/// The page and the unit that a text is in.
struct Head<'a> {
    text: &'a str,
    maker: &'a Defaults,
    unit: Unit,
    canvas: Canvas,
}

impl Head<'_> {
    fn set(
        &mut self,
        pages: u8,
        w: &Written,
        h: &Written,
        unit: Option<Unit>,
    ) -> Result<(), WordError> {
        self.unit = unit.unwrap_or(self.unit);
        self.canvas = Canvas {
            page: Size {
                w: self.side(w)?,
                h: self.side(h)?,
            },
            pages,
        };
        Ok(())
    }

    fn length(&self, written: &Written) -> Result<Length, WordError> {
        value(self.text, written, self.unit)
    }

    /// A length above nothing.
    fn side(&self, written: &Written) -> Result<Length, WordError> {
        let length = self.length(written)?;
        if length.ticks() > 0 {
            return Ok(length);
        }
        Err(at_place(
            self.text,
            &written.place,
            length.to_text(self.unit),
            vec!["a length above 0".to_owned()],
        ))
    }

    fn wrong(&self, place: &Place, found: impl Into<String>, allowed: &[&str]) -> WordError {
        at_place(
            self.text,
            place,
            found.into(),
            allowed.iter().map(|a| (*a).to_owned()).collect(),
        )
    }

    fn block(&self, line: &Named<'_>, rects: &BTreeMap<&str, Rect>) -> Result<Block, WordError> {
        let kind = line.kind.value;
        let grid = self.grid(line)?;
        let rect = self.place(line, grid.as_ref(), rects)?;
        let ring = self.ring(line)?;
        Ok(Block {
            id: line.id.clone(),
            kind,
            rect,
            turn: self.turn(line)?,
            shape: self.shape(line)?,
            bleed: bleed(line),
            under: framed(line)
                .filter(|_| kind == Kind::Mat)
                .map(|f| f.value.clone()),
            host: first(line, |c| match c {
                Clause::On(id) => Some(id.value.clone()),
                _ => None,
            }),
            size: first(line, |c| match c {
                Clause::Size3(size) => Some(*size),
                _ => None,
            })
            .filter(|_| kind == Kind::Cluster),
            grid,
            ring,
            sure: None,
            other: Map::new(),
        })
    }

    /// Where a block is: as it says, or round the block that it frames.
    fn place(
        &self,
        line: &Named<'_>,
        grid: Option<&Grid>,
        rects: &BTreeMap<&str, Rect>,
    ) -> Result<Rect, WordError> {
        let size = self.size(line, grid)?;
        let inner = framed(line)
            .filter(|_| line.kind.value == Kind::Mat && !is_sized(line))
            .and_then(|f| rects.get(f.value.as_str()));
        Ok(match (inner, thickness(line)) {
            (Some(inner), Some(border)) => grown(*inner, self.side(border)?),
            (Some(inner), None) => grown(*inner, self.maker.border_in(self.unit)),
            _ => self.rect(line, size)?,
        })
    }

    fn turn(&self, line: &Named<'_>) -> Result<f64, WordError> {
        let turn = first(line, |c| match c {
            Clause::Turned(turn) => Some(*turn),
            _ => None,
        })
        .unwrap_or_default();
        if (-MOST_TURN..=MOST_TURN).contains(&turn) {
            return Ok(turn);
        }
        let allowed = format!("turned by -{MOST_TURN} to {MOST_TURN} degrees");
        Err(self.wrong(
            &line.kind.place,
            "a block that is turned by more than it may be",
            &[&allowed],
        ))
    }

    fn shape(&self, line: &Named<'_>) -> Result<Shape, WordError> {
        let shape = first(line, |c| match c {
            Clause::Round => Some(Shape::Ellipse),
            Clause::Triangle(corner) => Some(Shape::Triangle(*corner)),
            Clause::Polygon(points) => Some(Shape::Polygon(points.clone())),
            _ => None,
        });
        let is_outside = |share: &f64| !(0.0..=1.0).contains(share);
        match &shape {
            Some(Shape::Polygon(points)) if points.iter().flatten().any(is_outside) => Err(self
                .wrong(
                    &line.kind.place,
                    "a polygon with a point outside its box",
                    &["points from 0 to 1 of the box"],
                )),
            _ => Ok(shape.unwrap_or_default()),
        }
    }

    fn grid(&self, line: &Named<'_>) -> Result<Option<Grid>, WordError> {
        if line.kind.value != Kind::Grid {
            return Ok(None);
        }
        let counts = line.clauses.iter().find_map(|c| match c.value {
            Clause::Units(cols, rows, _) | Clause::By(cols, rows) => Some((cols, rows)),
            _ => None,
        });
        let Some((cols, rows)) = counts.filter(|(c, r)| *c > 0 && *r > 0) else {
            return Err(self.wrong(
                &line.kind.place,
                "a grid without its columns and rows",
                &["5x2 of 2 1/4", "a size and in 5 by 2"],
            ));
        };
        let gap = line.clauses.iter().find_map(|c| {
            if let Clause::Gap(gap) = &c.value {
                Some(self.length(gap))
            } else {
                None
            }
        });
        let stagger = if line.clauses.iter().any(|c| c.value == Clause::Staggered) {
            0.5
        } else {
            0.0
        };
        Ok(Some(Grid {
            cols,
            rows,
            gap: gap.transpose()?.unwrap_or_default(),
            stagger,
            unit_shape: unit_shape(line),
        }))
    }

    fn ring(&self, line: &Named<'_>) -> Result<Option<Ring>, WordError> {
        if line.kind.value != Kind::Ring {
            return Ok(None);
        }
        let found = line.clauses.iter().find_map(|c| {
            if let Clause::Ring(count, unit) = &c.value {
                Some((*count, unit))
            } else {
                None
            }
        });
        let Some((count, unit)) = found.filter(|(count, _)| *count > 0) else {
            return Err(self.wrong(
                &line.kind.place,
                "a ring without its units",
                &["with 10 of 5/8"],
            ));
        };
        Ok(Some(Ring {
            count,
            unit: self.side(unit)?,
            unit_shape: unit_shape(line),
        }))
    }

    /// Width and height, from a size, from a grid's units, or as thick as told and as long as the page.
    fn size(
        &self,
        line: &Named<'_>,
        grid: Option<&Grid>,
    ) -> Result<Option<(Length, Length)>, WordError> {
        let full = line.clauses.iter().find_map(|c| {
            if let Clause::Full { wide } = c.value {
                Some(wide)
            } else {
                None
            }
        });
        for clause in line.clauses {
            match (&clause.value, full) {
                (Clause::Size(w, h), _) => return Ok(Some((self.side(w)?, self.side(h)?))),
                (Clause::Units(cols, rows, unit), _) => {
                    let (unit, gap) = (self.side(unit)?, grid.map(|g| g.gap).unwrap_or_default());
                    let run = |n: u32| {
                        let n = i64::from(n);
                        unit.checked_times(n)
                            .zip(gap.checked_times(n - 1))
                            .and_then(|(a, b)| a.checked_add(b))
                            .filter(|l| *l <= Length::LIMIT)
                    };
                    let run = |n| {
                        run(n).ok_or_else(|| {
                            self.wrong(
                                &clause.place,
                                "a grid that is longer than 100 m",
                                &["fewer or smaller units"],
                            )
                        })
                    };
                    return Ok(Some((run(*cols)?, run(*rows)?)));
                }
                (Clause::Thick(thick), Some(true)) => {
                    return Ok(Some((self.canvas.width(), self.side(thick)?)));
                }
                (Clause::Thick(thick), Some(false)) => {
                    return Ok(Some((self.side(thick)?, self.canvas.page.h)));
                }
                _ => {}
            }
        }
        Ok(None)
    }

    fn rect(&self, line: &Named<'_>, size: Option<(Length, Length)>) -> Result<Rect, WordError> {
        let kind = line.kind.value.word();
        let Some((w, h)) = size else {
            let sizes = match line.kind.value {
                Kind::Strip => ["12 x 1 3/8", "1 3/8 full width"],
                Kind::Mat => ["4 1/4 x 6 1/4", "around p1"],
                _ => ["4x6", "4 x 6 1/2"],
            };
            return Err(self.wrong(&line.kind.place, format!("a {kind} without a size"), &sizes));
        };
        let (canvas_w, canvas_h) = (self.canvas.width(), self.canvas.page.h);
        let middle = |of: Length, side: Length| Length::from_ticks((of.ticks() - side.ticks()) / 2);
        let full = line.clauses.iter().find_map(|c| {
            if let Clause::Full { wide } = c.value {
                Some(wide)
            } else {
                None
            }
        });
        for clause in line.clauses {
            let (x, y) = match (&clause.value, full) {
                (Clause::At(x, Some(y)), _) => (self.length(x)?, self.length(y)?),
                (Clause::At(y, None), Some(true)) => (Length::ZERO, self.length(y)?),
                (Clause::At(x, None), Some(false)) => (self.length(x)?, Length::ZERO),
                (Clause::At(x, None), None) => {
                    let end = x.place.end..x.place.end;
                    return Err(self.wrong(
                        &end,
                        "the end of the line",
                        &["a comma and the distance from the top"],
                    ));
                }
                (Clause::Along(Edge::Top), _) => (middle(canvas_w, w), Length::ZERO),
                (Clause::Along(Edge::Bottom), _) => (middle(canvas_w, w), canvas_h - h),
                (Clause::Along(Edge::Left), _) => (Length::ZERO, middle(canvas_h, h)),
                (Clause::Along(Edge::Right), _) => (canvas_w - w, middle(canvas_h, h)),
                (Clause::Middle, _) => (middle(canvas_w, w), middle(canvas_h, h)),
                _ => continue,
            };
            return Ok(Rect { x, y, w, h });
        }
        Err(self.wrong(
            &line.kind.place,
            format!("a {kind} without a place"),
            &["at 3, 2", "along the top", "in the middle"],
        ))
    }
}

fn unit_shape(line: &Named<'_>) -> UnitShape {
    let circles = line
        .clauses
        .iter()
        .any(|c| c.value == Clause::Circles(true));
    if circles {
        UnitShape::Circle
    } else {
        UnitShape::Square
    }
}

/// A box with a border all around.
fn grown(inner: Rect, by: Length) -> Rect {
    Rect {
        x: inner.x - by,
        y: inner.y - by,
        w: inner.w + by + by,
        h: inner.h + by + by,
    }
}
