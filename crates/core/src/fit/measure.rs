//! How good a layout is, by the format's "How a fit is measured".

use super::approach::Map;
use crate::geometry::{Axis, Span};
use crate::layout::{Layout, LayoutBlock, crop_of};
use crate::reading::{AGREE, KEPT, Place, distance, face, holds, relations};
use crate::sketch::{Kind, Sketch};
use serde_json::{Value, json};

/// How many of how many.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Kept {
    /// Those that still hold.
    pub kept: usize,
    /// All.
    pub of: usize,
}

impl Kept {
    fn count(&mut self, holds: bool) {
        self.kept += usize::from(holds);
        self.of += 1;
    }

    /// The share kept; all of nothing is 1.
    pub fn share(self) -> f64 {
        if self.of == 0 {
            1.0
        } else {
            self.kept as f64 / self.of as f64
        }
    }

    pub(crate) fn json(self) -> Value {
        json!({"kept": self.kept, "of": self.of})
    }
}

/// One or several sketch blocks (merged slots) against what stands for them.
#[derive(Clone, Debug, PartialEq)]
pub struct Group {
    /// Indexes of the sketch's blocks.
    pub blocks: Vec<usize>,
    /// Kind of the first.
    pub kind: Kind,
    /// The box around them in the sketch, in ticks.
    pub drawn: Span,
    /// Where that is wanted on the target.
    pub want: Span,
    /// The box around what stands for them.
    pub here: Span,
    /// How many layout blocks stand for them.
    pub parts: usize,
}

impl Group {
    /// The distance of the centres, each coordinate as a share of the canvas.
    pub fn drift(&self, canvas: Span) -> f64 {
        ((self.here.cx() - self.want.cx()) / canvas.w())
            .hypot((self.here.cy() - self.want.cy()) / canvas.h())
    }
}

/// The measures of one layout.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Measures {
    /// Each group, in the sketch's order.
    pub groups: Vec<Group>,
    /// Mean drift, 0 to 1.
    pub drift_mean: f64,
    /// The largest drift.
    pub drift_max: f64,
    /// Like edges and centres that agreed.
    pub alignments: Kept,
    /// Relations of pairs.
    pub relations: Kept,
    /// Edges that touched.
    pub contacts: Kept,
    /// The share of the prints' area that is trimmed away.
    pub trimmed: f64,
    /// Mean |ln| of the change of the photo slots' shape.
    pub slot_shape: f64,
    /// The share of the sketch's photos that show no photo here.
    pub emptied: f64,
    /// Photo area against the wanted area.
    pub photo_area: f64,
    /// Pairs of groups that no longer line up: place and the two groups.
    pub lost_lines: Vec<(Place, usize, usize)>,
}

/// Measures a layout against the sketch (turned and flipped already).
pub fn measure(sketch: &Sketch, map: Map, layout: &Layout) -> Measures {
    let mut found = measure_groups(sketch, groups(sketch, map, layout), layout.canvas.span());
    found.trimmed = trimmed(layout);
    found.emptied = emptied(sketch, layout);
    found
}

/// Measures placed groups on a canvas.
pub(crate) fn measure_groups(sketch: &Sketch, groups: Vec<Group>, canvas: Span) -> Measures {
    let drifts: Vec<f64> = groups.iter().map(|g| g.drift(canvas)).collect();
    let mut found = Measures {
        drift_mean: drifts.iter().sum::<f64>() / drifts.len().max(1) as f64,
        drift_max: drifts.iter().copied().fold(0.0, f64::max),
        ..Measures::default()
    };
    for (n, a) in groups.iter().enumerate() {
        for (m, b) in groups.iter().enumerate().skip(n + 1) {
            relations(a.drawn, b.drawn)
                .into_iter()
                .for_each(|r| found.relations.count(holds(r, a.here, b.here)));
            contacts(&mut found, a, b);
            if comparable(sketch, a, b) {
                lines(&mut found, (n, a), (m, b));
            }
        }
    }
    photo_form(&mut found, &groups);
    found.groups = groups;
    found
}

fn contacts(found: &mut Measures, a: &Group, b: &Group) {
    for (x, y) in [(a, b), (b, a)] {
        for axis in Axis::BOTH {
            if face(x.drawn, y.drawn, axis) && distance(x.drawn, y.drawn, axis).abs() <= AGREE {
                found
                    .contacts
                    .count(distance(x.here, y.here, axis).abs() <= KEPT + 1.0);
            }
        }
    }
}

/// Mats are compared with mats only, never with one they frame or are framed by.
fn comparable(sketch: &Sketch, a: &Group, b: &Group) -> bool {
    let mats = (a.kind == Kind::Mat, b.kind == Kind::Mat);
    if mats != (true, true) {
        return !mats.0 && !mats.1;
    }
    let in_chain = |x: &Group, y: &Group| {
        x.blocks
            .iter()
            .any(|n| chain(sketch, *n).iter().any(|f| y.blocks.contains(f)))
    };
    !in_chain(a, b) && !in_chain(b, a)
}

/// What a mat frames, and what that frames, and so on.
fn chain(sketch: &Sketch, mat: usize) -> Vec<usize> {
    let next = |n: usize| {
        sketch.blocks[n]
            .under
            .as_deref()
            .and_then(|id| sketch.index_of(id))
    };
    std::iter::successors(next(mat), |n| next(*n))
        .take(sketch.blocks.len())
        .collect()
}

fn lines(found: &mut Measures, (n, a): (usize, &Group), (m, b): (usize, &Group)) {
    for place in Place::ALL {
        if (place.of(a.drawn) - place.of(b.drawn)).abs() <= AGREE {
            let kept = (place.of(a.here) - place.of(b.here)).abs() <= KEPT + 1.0;
            found.alignments.count(kept);
            if !kept {
                found.lost_lines.push((place, n, m));
            }
        }
    }
}

fn photo_form(found: &mut Measures, groups: &[Group]) {
    let photos: Vec<&Group> = groups.iter().filter(|g| g.kind == Kind::Photo).collect();
    let single: Vec<f64> = photos
        .iter()
        .filter(|g| g.parts == 1 && g.blocks.len() == 1)
        .map(|g| {
            (g.here.w() / g.here.h() * g.drawn.h() / g.drawn.w())
                .ln()
                .abs()
        })
        .collect();
    found.slot_shape = single.iter().sum::<f64>() / single.len().max(1) as f64;
    let (here, want) = photos.iter().fold((0.0, 0.0), |(h, w), g| {
        (h + g.here.area(), w + g.want.area())
    });
    found.photo_area = if want > 0.0 { here / want } else { 1.0 };
}

fn emptied(sketch: &Sketch, layout: &Layout) -> f64 {
    let shows = |id: &String| {
        layout
            .blocks
            .iter()
            .any(|b| b.block.kind == Kind::Photo && b.from.contains(id))
    };
    let photos: Vec<&String> = sketch
        .blocks
        .iter()
        .filter(|b| b.kind == Kind::Photo)
        .map(|b| &b.id)
        .collect();
    photos.iter().filter(|id| !shows(id)).count() as f64 / photos.len().max(1) as f64
}

fn trimmed(layout: &Layout) -> f64 {
    let (mut all, mut kept) = (0.0, 0.0);
    for parts in layout.each_photo() {
        let Some((keep, placed)) = crop_of(&parts).zip(parts[0].placement.as_ref()) else {
            continue;
        };
        let area = placed.print.w.ticks() as f64 * placed.print.h.ticks() as f64;
        all += area;
        kept += area * keep.w * keep.h;
    }
    if all > 0.0 { 1.0 - kept / all } else { 0.0 }
}

/// Layout blocks that stand for the same sketch blocks, and sketch blocks that a layout block joins.
pub(crate) fn groups(sketch: &Sketch, map: Map, layout: &Layout) -> Vec<Group> {
    let mut joined: Vec<Vec<usize>> = Vec::new();
    let mut parts: Vec<Vec<&LayoutBlock>> = Vec::new();
    for block in &layout.blocks {
        let mut ids: Vec<usize> = block
            .from
            .iter()
            .filter_map(|id| sketch.index_of(id))
            .collect();
        if ids.is_empty() {
            continue;
        }
        let mut own = vec![block];
        while let Some(n) = joined
            .iter()
            .position(|g| g.iter().any(|b| ids.contains(b)))
        {
            ids.extend(joined.remove(n));
            own.splice(0..0, parts.remove(n));
        }
        ids.sort_unstable();
        ids.dedup();
        joined.push(ids);
        parts.push(own);
    }
    let mut found: Vec<Group> = joined
        .into_iter()
        .zip(parts)
        .map(|(ids, own)| group(sketch, map, layout, ids, &own))
        .collect();
    found.sort_by_key(|g| g.blocks[0]);
    found
}

fn group(
    sketch: &Sketch,
    map: Map,
    layout: &Layout,
    blocks: Vec<usize>,
    parts: &[&LayoutBlock],
) -> Group {
    let bleeds = blocks.iter().any(|n| !sketch.blocks[*n].bleed.is_empty());
    let cut = |span: Span, canvas: Span| if bleeds { span.cut_to(canvas) } else { span };
    let around = |spans: &mut dyn Iterator<Item = Span>| {
        spans.reduce(Span::around).expect("a group has members")
    };
    let drawn = cut(
        around(&mut blocks.iter().map(|n| sketch.blocks[*n].extent())),
        sketch.canvas.span(),
    );
    let here = cut(
        around(&mut parts.iter().map(|p| p.extent())),
        layout.canvas.span(),
    );
    Group {
        kind: sketch.blocks[blocks[0]].kind,
        want: map.apply(drawn),
        parts: parts.len(),
        drawn,
        here,
        blocks,
    }
}
