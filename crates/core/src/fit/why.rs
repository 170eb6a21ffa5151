//! Why a block is not where, or as large as, it was wanted: the row of the program that pushes hardest that way, in a maker's words.
//!
//! At the optimum the pulls on a block are balanced by the rows it stands in; each row's share is its multiplier (the dual of the
//! program), so that the largest tells what moved the block. A tie that only hands a push on (a mat's border) is followed.

use super::conflict::{names_of, pin_text};
use super::measure::Measures;
use super::model::Scene;
use super::reason::{Reason, Wish};
use super::search::Chosen;
use crate::geometry::Axis;
use crate::length::Length;
use crate::photos::Photos;
use crate::reading::{Relation, relations};
use crate::sketch::Kind;

/// What is less than this is not worth a reason, in ticks: 1/16 in.
const TELLING: f64 = crate::reading::INCH / 16.0;
/// A push below this is the solver's noise.
const FAINT: f64 = 1e-3;
/// Mats hand a push on so often at the most.
const HANDED_ON: usize = 3;

/// Why an item's middle moved along an axis; `way` says which way.
pub(crate) fn of_move(
    scene: &Scene<'_>,
    chosen: &Chosen,
    n: usize,
    axis: Axis,
    way: f64,
) -> Option<String> {
    let mut at = n;
    for _ in 0..HANDED_ON {
        let Some(row) = hardest(scene, chosen, at, axis, way, 1.0) else {
            // Only its host pulls it: that is a pull, no row.
            return scene.items[at].host.map(|h| {
                format!(
                    "to keep its place at the {}",
                    names_of(scene.sketch, &scene.items[h])
                )
            });
        };
        let reason = chosen.model.qp.rows[row].reason;
        match reason {
            Reason::Mat(mat) => {
                let framed = scene.items[mat].frames.map(|(f, _)| f)?;
                at = if at == mat { framed } else { mat };
            }
            _ => return reason_of_row(scene, chosen, row, at),
        }
    }
    None
}

/// Why an item is larger (`way` above 0) or smaller than wanted along an axis.
fn of_size(scene: &Scene<'_>, chosen: &Chosen, n: usize, axis: Axis, way: f64) -> Option<String> {
    reason_of_row(
        scene,
        chosen,
        hardest(scene, chosen, n, axis, way, -1.0)?,
        n,
    )
}

/// The row that pushes an item hardest: both edges one way (`low` 1), or apart (`low` -1).
fn hardest(
    scene: &Scene<'_>,
    chosen: &Chosen,
    n: usize,
    axis: Axis,
    way: f64,
    low: f64,
) -> Option<usize> {
    let vars = chosen.model.vars[n].edges;
    let (first, last) = if axis == Axis::X {
        (vars[0], vars[2])
    } else {
        (vars[1], vars[3])
    };
    let rows = &chosen.model.qp.rows;
    let push = |row: &usize| {
        let along = |var| {
            rows[*row]
                .expr
                .terms
                .iter()
                .filter(|t| t.0 == var)
                .map(|t| t.1)
                .sum::<f64>()
        };
        chosen.duals.get(*row).copied().unwrap_or_default()
            * (low * along(first) + along(last))
            * way.signum()
    };
    let own = |row: &usize| {
        low > 0.0 || !matches!(rows[*row].reason, Reason::Mat(m) if scene.items[m].frames.is_none())
    };
    (0..rows.len())
        .filter(own)
        .map(|r| (r, push(&r)))
        .filter(|(_, p)| *p > FAINT)
        .max_by(|a, b| a.1.total_cmp(&b.1))
        .map(|(r, _)| r)
}

/// What a row that pushes an item stands for.
fn reason_of_row(scene: &Scene<'_>, chosen: &Chosen, row: usize, n: usize) -> Option<String> {
    let Scene {
        request,
        sketch,
        items,
        ..
    } = scene;
    let name = |i: usize| names_of(sketch, &items[i]);
    let reason = chosen.model.qp.rows[row].reason;
    let other = |a: usize, b: usize| if a == n { b } else { a };
    Some(match reason {
        Reason::Fold(_) => "to clear the fold".to_owned(),
        Reason::Margin(_) if request.margin > Length::ZERO => {
            "to stay inside the margin".to_owned()
        }
        Reason::Margin(_) => "to stay on the page".to_owned(),
        Reason::Bleed(_) => "to run off the page".to_owned(),
        Reason::Mat(m) => format!("for the border of the {}", name(m)),
        Reason::Apart(a, b) => format!("so as not to overlap the {}", name(other(a, b))),
        Reason::Print(i) if request.whole => {
            format!("because the print in the {} keeps its size", name(i))
        }
        Reason::Print(_) => "because its print is no larger".to_owned(),
        Reason::Size(_) => "to keep some width and height".to_owned(),
        Reason::Cells(i) => format!(
            "for the {} prints that share the {}",
            items[i].cell_runs().len(),
            name(i)
        ),
        Reason::Pin(p) => format!("because you pinned {}", pin_text(request, sketch, p)),
        Reason::Wish(wish, a, b) => {
            let o = if a == b {
                partner(chosen, row, n)?
            } else {
                other(a, b)
            };
            let with = if o == n { String::new() } else { name(o) };
            match wish {
                Wish::Round => "to stay round or square".to_owned(),
                Wish::Face => "so that no face is trimmed away".to_owned(),
                Wish::Unit if scene.items[n].kind == Kind::Title => {
                    "so that the fold comes between two words".to_owned()
                }
                Wish::Unit => "so that the fold comes between two units".to_owned(),
                Wish::Bounds | Wish::Equal if o == n => "to keep its size".to_owned(),
                _ if o == n => return None,
                Wish::Relation => format!("to stay {} the {with}", relation(scene, n, o)),
                Wish::Line => format!("to stay in line with the {with}"),
                Wish::Contact => format!("to keep touching the {with}"),
                Wish::Gap => format!("to keep its gap to the {with}"),
                Wish::Equal => format!("to stay even with the {with}"),
                Wish::Bounds => "to keep its size".to_owned(),
            }
        }
    })
}

/// A line's first member shares its row with nobody: whose row on the same line pushes the other way hardest.
fn partner(chosen: &Chosen, row: usize, n: usize) -> Option<usize> {
    let rows = &chosen.model.qp.rows;
    let own = &rows[row];
    let edges: Vec<usize> = chosen.model.vars.iter().flat_map(|v| v.edges).collect();
    let Some(common) = own
        .expr
        .terms
        .iter()
        .map(|t| t.0)
        .find(|v| !edges.contains(v))
    else {
        return Some(n);
    };
    let shares = |r: &usize| *r != row && rows[*r].expr.terms.iter().any(|t| t.0 == common);
    let hardest = (0..rows.len())
        .filter(shares)
        .max_by(|a, b| chosen.duals[*a].abs().total_cmp(&chosen.duals[*b].abs()))?;
    match rows[hardest].reason {
        Reason::Wish(_, _, b) => Some(b),
        _ => None,
    }
}

/// How an item lies to another in the sketch.
fn relation(scene: &Scene<'_>, n: usize, other: usize) -> &'static str {
    match relations(scene.items[n].drawn, scene.items[other].drawn).first() {
        Some(Relation::LeftOf) => "left of",
        Some(Relation::RightOf) => "right of",
        Some(Relation::Above) => "above",
        Some(Relation::Below) => "below",
        Some(Relation::Contains) => "under",
        Some(Relation::Within) => "on",
        _ => "over the edge of",
    }
}

/// For each sketch block that is not as it was wanted, why not.
pub(crate) fn of_blocks(
    scene: &Scene<'_>,
    chosen: &Chosen,
    measures: &Measures,
) -> Vec<(String, Vec<String>)> {
    let text = |ticks: f64| {
        Length::from_ticks(ticks.abs().round() as i64).to_ruler_text(scene.request.unit)
    };
    let mut found = Vec::new();
    for group in &measures.groups {
        let Some(n) = scene
            .items
            .iter()
            .position(|i| i.from.contains(&group.blocks[0]))
        else {
            continue;
        };
        let mut said = Vec::new();
        for (axis, off, more, less) in [
            (Axis::X, group.here.cx() - group.want.cx(), "right", "left"),
            (Axis::Y, group.here.cy() - group.want.cy(), "down", "up"),
        ] {
            if off.abs() >= TELLING
                && let Some(why) = of_move(scene, chosen, n, axis, off)
            {
                said.push(format!(
                    "{} {}, {why}",
                    text(off),
                    if off > 0.0 { more } else { less }
                ));
            }
        }
        let fixed =
            matches!(scene.request.photos, Photos::Prints(_)) && scene.items[n].kind == Kind::Photo;
        for (axis, off, more, less) in [
            (
                Axis::X,
                group.here.w() - group.want.w(),
                "wider",
                "narrower",
            ),
            (
                Axis::Y,
                group.here.h() - group.want.h(),
                "taller",
                "shorter",
            ),
        ] {
            if off.abs() < TELLING || scene.items[n].frames.is_some() {
                continue;
            }
            let keeps_shape = matches!(
                scene.items[n].kind,
                Kind::Photo | Kind::Cluster | Kind::Accent
            ) || scene.items[n].round;
            let why = of_size(scene, chosen, n, axis, off).or_else(|| match (fixed, keeps_shape) {
                (true, _) => Some("to show as much of its print as there is room for".to_owned()),
                (false, true) => Some("to keep its shape".to_owned()),
                (false, false) => None,
            });
            if let Some(why) = why {
                said.push(format!(
                    "{} {}, {why}",
                    text(off),
                    if off > 0.0 { more } else { less }
                ));
            }
        }
        if !said.is_empty() {
            found.extend(
                group
                    .blocks
                    .iter()
                    .map(|b| (scene.sketch.blocks[*b].id.clone(), said.clone())),
            );
        }
    }
    found
}
