//! From outlines to blocks: which panel frames which, what repeats, what each thing is, and what lies on what.

use crate::evidence::Evidence;
use crate::lone::Divided;
use crate::panels::Panel;
use crate::repeats;
use crate::rounds::Round;
use crate::sheet::Sheet;
use crate::trace::{Traced, Wedge};
use crate::writing::Extent;

/// What a thing is drawn as.
#[derive(Debug, Clone)]
pub(crate) enum Form {
    Panel(Panel),
    Round(Round),
    Wedge(Wedge),
    /// Tight round ink: a title, journaling, a cluster.
    Ink(Extent),
    /// A closed outline of several corners, in pixels.
    Tag(Vec<[f64; 2]>),
    Lattice(repeats::Lattice),
    Ring(repeats::RingOf),
}

impl Form {
    pub(crate) fn extent(&self) -> Extent {
        match self {
            Form::Panel(p) => p.extent(),
            Form::Round(r) => r.extent(),
            Form::Wedge(w) => w.extent,
            Form::Ink(e) => *e,
            Form::Lattice(l) => l.extent,
            Form::Ring(r) => r.extent(),
            Form::Tag(points) => {
                let by = |k: usize, f: fn(f64, f64) -> f64, from: f64| {
                    points.iter().map(|q| q[k]).fold(from, f)
                };
                Extent {
                    x0: by(0, f64::min, f64::INFINITY),
                    y0: by(1, f64::min, f64::INFINITY),
                    x1: by(0, f64::max, f64::NEG_INFINITY),
                    y1: by(1, f64::max, f64::NEG_INFINITY),
                }
            }
        }
    }

    /// Places along the outline, about 4 pixels apart.
    pub(crate) fn outline(&self) -> Vec<[f64; 2]> {
        let corners = match self {
            Form::Panel(p) => p.points().to_vec(),
            Form::Tag(points) => points.clone(),
            Form::Wedge(w) => w.points().to_vec(),
            Form::Round(r) => (0..48)
                .map(|k| (k, 48))
                .map(|(k, n)| r.place(k, n))
                .collect(),
            _ => Panel::upright(self.extent()).points().to_vec(),
        };
        let mut out = Vec::new();
        for (k, a) in corners.iter().enumerate() {
            let b = corners[(k + 1) % corners.len()];
            let n = ((b[0] - a[0]).hypot(b[1] - a[1]) / 4.0).ceil().max(1.0) as usize;
            out.extend(
                (0..n)
                    .map(|i| i as f64 / n as f64)
                    .map(|t| [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]),
            );
        }
        out
    }

    /// How far inside a place lies; negative outside.
    pub(crate) fn depth(&self, p: [f64; 2]) -> f64 {
        match self {
            Form::Panel(panel) => panel.depth(p),
            Form::Round(r) => {
                (1.0 - ((p[0] - r.middle[0]) / r.rx).hypot((p[1] - r.middle[1]) / r.ry))
                    * r.rx.min(r.ry)
            }
            Form::Wedge(w) => w.depth(p),
            _ => Panel::upright(self.extent()).depth(p),
        }
    }

    pub(crate) fn area(&self) -> f64 {
        match self {
            Form::Panel(p) => p.area(),
            Form::Round(r) => std::f64::consts::PI * r.rx * r.ry,
            Form::Wedge(w) => w.extent.area() / 2.0,
            _ => self.extent().area(),
        }
    }
}

/// A block as read.
#[derive(Debug, Clone)]
pub(crate) struct Read {
    pub(crate) kind: &'static str,
    pub(crate) form: Form,
    /// 0 to 1.
    pub(crate) sure: f64,
    /// The block that a mat frames, by its place in the list.
    pub(crate) under: Option<usize>,
    pub(crate) host: Option<usize>,
}

/// The blocks of a traced sheet, bottom to top.
pub(crate) fn blocks(sheet: &Sheet, traced: &Traced) -> Vec<Read> {
    let evidence = Evidence::new(sheet, traced);
    let mut panels: Vec<Panel> = Vec::new();
    for panel in traced.panels.iter().filter(|p| !evidence.is_ghost(p)) {
        if !panels.iter().any(|p| is_twin(p, panel)) {
            panels.push(*panel);
        }
    }
    nest_strips(&mut panels, &evidence);
    let rounds: Vec<Round> = traced
        .rounds
        .iter()
        .filter(|r| !evidence.in_cluster(&r.extent()))
        .copied()
        .collect();
    let framed = framed(&panels);
    let in_frame = |i: usize| framed.iter().any(|&(mat, inner)| mat == i || inner == i);
    let (lattices, gathered) = repeats::lattices(
        &panels,
        &(0..panels.len())
            .filter(|&i| !in_frame(i))
            .collect::<Vec<_>>(),
    );
    let (ring, ringed) = repeats::ring(&rounds);
    let mut out: Vec<Read> = Vec::new();
    let mut place: Vec<Option<usize>> = vec![None; panels.len()];
    for (i, panel) in panels.iter_mut().enumerate() {
        // An outline round touching units is theirs.
        let theirs = |l: &repeats::Lattice| {
            l.extent.common(&panel.extent()) > 0.93 * l.extent.with(&panel.extent()).area()
        };
        if gathered.contains(&i) || panel.turn == 0.0 && lattices.iter().any(theirs) {
            continue;
        }
        let is_mat = framed.iter().any(|&(mat, _)| mat == i);
        let (kind, sure) = if is_mat {
            ("mat", 0.9)
        } else {
            evidence.kind(panel, framed.iter().any(|&(_, inner)| inner == i))
        };
        place[i] = Some(out.len());
        out.push(Read {
            kind,
            form: Form::Panel(*panel),
            sure: sure * panel.seen.min(1.0),
            under: None,
            host: None,
        });
    }
    for (mat, inner) in framed {
        if let (Some(m), Some(p)) = (place[mat], place[inner]) {
            out[m].under = Some(p);
        }
    }
    out.extend(
        lattices
            .into_iter()
            .map(|l| plain("grid", Form::Lattice(l), 0.9)),
    );
    out.extend(ring.map(|r| plain("ring", Form::Ring(r), 0.9)));
    for (i, round) in rounds.iter().enumerate() {
        if !ringed.contains(&i) {
            let (kind, sure) = evidence.round_kind(round);
            out.push(plain(kind, Form::Round(*round), sure * round.seen));
        }
    }
    out.extend(
        traced
            .wedges
            .iter()
            .map(|w| plain("paper", Form::Wedge(*w), 0.9)),
    );
    out.extend(
        traced
            .tags
            .iter()
            .map(|t| plain("accent", Form::Tag(t.clone()), 0.8)),
    );
    out.extend(
        traced
            .washes
            .iter()
            .map(|e| plain("wash", Form::Ink(*e), 0.6)),
    );
    out.extend(traced.lone.iter().map(|l| three_sided(l, &evidence)));
    let framed_lines: Vec<Extent> = out
        .iter()
        .filter(|b| b.kind == "journal")
        .map(|b| b.form.extent())
        .collect();
    for writing in &traced.writing {
        let inside = framed_lines
            .iter()
            .any(|e| e.grown(6.0).common(&writing.extent) > 0.8 * writing.extent.area());
        if inside || !writing.lines && writing.count < 3 || evidence.is_label(writing) {
            continue;
        }
        let (kind, sure) = if writing.lines {
            ("journal", if writing.count > 2 { 0.95 } else { 0.6 })
        } else {
            ("title", 0.9)
        };
        out.push(plain(kind, Form::Ink(writing.extent), sure));
    }
    out.extend(
        traced
            .clusters
            .iter()
            .map(|e| plain("cluster", Form::Ink(*e), 0.85)),
    );
    stacked(out, &evidence)
}

/// Of the two parts that a line makes of a page the one that is filled; by their size, the smaller one.
fn three_sided(line: &Divided, evidence: &Evidence) -> Read {
    let bare = evidence.bare();
    let is_filled = |p: &Panel| evidence.look(&p.extent()).differs(&bare);
    let smaller_first = line.before.area() <= line.after.area();
    let is_before = match (is_filled(&line.before), is_filled(&line.after)) {
        (true, false) => true,
        (false, true) => false,
        _ => smaller_first,
    };
    let panel = if is_before { line.before } else { line.after };
    let (kind, _) = evidence.kind(&panel, false);
    let kind = if kind == "strip" { "strip" } else { "paper" };
    plain(kind, Form::Panel(panel), 0.6)
}

/// Four lines across the page are a narrow strip on a wide one, rather than two strips apart, when both outer bands look alike.
fn nest_strips(panels: &mut [Panel], evidence: &Evidence) {
    let bands = |p: &Panel| -> Option<(bool, f64, f64)> {
        let e = p.extent();
        match p.edges {
            [true, false, true, false] => Some((true, e.y0, e.y1)),
            [false, true, false, true] => Some((false, e.x0, e.x1)),
            _ => None,
        }
    };
    for i in 0..panels.len() {
        for j in 0..panels.len() {
            let (Some((level, a0, a1)), Some((same, b0, b1))) =
                (bands(&panels[i]), bands(&panels[j]))
            else {
                continue;
            };
            if i == j || level != same || !(12.0..=120.0).contains(&(b0 - a1)) || b1 - a0 > 270.0 {
                continue;
            }
            let (e, f) = (panels[i].extent(), panels[j].extent());
            let between = if level {
                Extent {
                    y0: a1,
                    y1: b0,
                    ..e
                }
            } else {
                Extent {
                    x0: a1,
                    x1: b0,
                    ..e
                }
            };
            let (a, b, m) = (
                evidence.look(&e),
                evidence.look(&f),
                evidence.look(&between),
            );
            // By hand a pattern is a few dots: with some on both outer bands and none between, a plain strip lies on a patterned one.
            let dotted = b0 - a1 >= 30.0 && a.is_dotted_beside(&m) && b.is_dotted_beside(&m);
            let apart = a.differs(&evidence.bare()) && !m.differs(&evidence.bare());
            if !dotted && (a.differs(&b) || apart) {
                continue;
            }
            panels[i] = Panel {
                seen: panels[i].seen,
                edges: panels[i].edges,
                ..Panel::upright(e.with(&f))
            };
            panels[j] = Panel {
                seen: panels[j].seen,
                edges: panels[j].edges,
                ..Panel::upright(between)
            };
        }
    }
}

/// Whether two panels are one, read twice: nearly the same place, and no even border between them.
fn is_twin(a: &Panel, b: &Panel) -> bool {
    let (e, f) = (a.extent(), b.extent());
    let borders = [f.x0 - e.x0, f.y0 - e.y0, e.x1 - f.x1, e.y1 - f.y1];
    (a.turn - b.turn).abs() < 4.0
        && borders.iter().all(|v| v.abs() <= 7.0)
        && borders
            .iter()
            .any(|v| v.abs() < 4.0 || v.signum() != borders[0].signum())
}

fn plain(kind: &'static str, form: Form, sure: f64) -> Read {
    Read {
        kind,
        form,
        sure,
        under: None,
        host: None,
    }
}

/// Which panel frames which: nested outlines with near-equal narrow borders, as (mat, what it frames).
fn framed(panels: &[Panel]) -> Vec<(usize, usize)> {
    let mut out: Vec<(usize, usize)> = Vec::new();
    for (m, mat) in panels.iter().enumerate() {
        let fits = |p: &Panel| {
            let (s, c) = mat.turn.to_radians().sin_cos();
            let (x, y) = (p.middle[0] - mat.middle[0], p.middle[1] - mat.middle[1]);
            let (u, v) = (x * c + y * s, y * c - x * s);
            let borders = [
                (mat.w - p.w) / 2.0 + u,
                (mat.w - p.w) / 2.0 - u,
                (mat.h - p.h) / 2.0 + v,
                (mat.h - p.h) / 2.0 - v,
            ];
            let (least, most) = borders
                .iter()
                .fold((f64::INFINITY, 0.0_f64), |(a, b), &v| (a.min(v), b.max(v)));
            // By hand one of the four may have closed up.
            let wide = borders.iter().filter(|v| **v > 4.0).count();
            (mat.turn - p.turn).abs() < 4.0
                && least > -3.0
                && wide >= 2
                && most < 48.0
                && most - least < (0.5 * (most + least) / 2.0).max(14.0)
        };
        let inner = panels
            .iter()
            .enumerate()
            .filter(|(i, p)| *i != m && fits(p))
            .max_by(|a, b| a.1.area().total_cmp(&b.1.area()));
        if let Some((i, _)) = inner {
            out.push((m, i));
        }
    }
    out
}

/// Bottom to top, by whose outline shows where two overlap.
fn stacked(blocks: Vec<Read>, evidence: &Evidence) -> Vec<Read> {
    let n = blocks.len();
    let rank = |kind: &str| {
        [
            "wash", "paper", "strip", "grid", "ring", "mat", "photo", "journal", "title", "accent",
            "cluster",
        ]
        .iter()
        .position(|k| *k == kind)
        .unwrap_or(1)
    };
    let mut over = vec![vec![false; n]; n];
    for i in 0..n {
        for j in i + 1..n {
            let (a, b) = (&blocks[i], &blocks[j]);
            if a.form.extent().common(&b.form.extent()) <= 0.0 {
                continue;
            }
            let soft = |k: &str| ["title", "journal", "cluster", "wash", "ring"].contains(&k);
            let a_over = if a.kind == "wash" || b.kind == "wash" || soft(a.kind) || soft(b.kind) {
                rank(a.kind) > rank(b.kind)
            } else {
                match (
                    evidence.shows(&a.form, &b.form),
                    evidence.shows(&b.form, &a.form),
                ) {
                    (Some(x), Some(y)) if (x - y).abs() > 0.15 => x > y,
                    (Some(x), None) => x > 0.5,
                    (None, Some(y)) => y <= 0.5,
                    _ => (rank(a.kind), -a.form.area()) > (rank(b.kind), -b.form.area()),
                }
            };
            over[i][j] = a_over;
            over[j][i] = !a_over;
        }
    }
    let mut left: Vec<usize> = (0..n).collect();
    let mut order = Vec::new();
    while !left.is_empty() {
        // What lies over nothing that is left; in a circle, what lies over least.
        let least = left
            .iter()
            .map(|&i| left.iter().filter(|&&j| over[i][j]).count())
            .min()
            .unwrap_or(0);
        let next = left
            .iter()
            .copied()
            .filter(|&i| left.iter().filter(|&&j| over[i][j]).count() == least)
            .min_by(|&i, &j| {
                let key = |k: usize| (rank(blocks[k].kind), blocks[k].form.area());
                let ((ra, aa), (rb, ab)) = (key(i), key(j));
                ra.cmp(&rb).then(ab.total_cmp(&aa))
            })
            .unwrap_or(left[0]);
        left.retain(|&i| i != next);
        order.push(next);
    }
    let mut at = vec![0; n];
    for (place, &i) in order.iter().enumerate() {
        at[i] = place;
    }
    let hosts: Vec<Option<usize>> = (0..n).map(|i| host(&blocks, i)).collect();
    let mut blocks: Vec<Option<Read>> = blocks.into_iter().map(Some).collect();
    order
        .iter()
        .filter_map(|&i| {
            blocks[i].take().map(|b| Read {
                under: b.under.map(|u| at[u]),
                host: hosts[i].map(|h| at[h]),
                ..b
            })
        })
        .collect()
}

/// What a cluster or an accent sits on: the smallest thing that holds its middle.
fn host(blocks: &[Read], i: usize) -> Option<usize> {
    if !["cluster", "accent"].contains(&blocks[i].kind) {
        return None;
    }
    let p = blocks[i].form.extent().middle();
    let holds = |b: &Read| {
        ["photo", "mat", "paper", "strip", "journal", "grid"].contains(&b.kind)
            && b.form.depth(p) > 0.0
    };
    (0..blocks.len())
        .filter(|&j| j != i && holds(&blocks[j]))
        .min_by(|&a, &b| blocks[a].form.area().total_cmp(&blocks[b].form.area()))
}
