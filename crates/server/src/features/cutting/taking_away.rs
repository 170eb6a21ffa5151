//! The cut plan to take away: on paper at true scale, and for cutting machines.

use super::LIMIT;
use super::machine::SheetOrder;
use super::planning::{PlanAsked, Planned, Things, plan_cuts};
use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::routes::exports::{FittedPage, fitted_page};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, download};
use crate::http::names::file_name;
use crate::state::App;
use axum::extract::State;
use axum::http::HeaderMap;
use metrosk_core::Cancel;
use metrosk_core::cutting::{Area, PlannedSheet};
use metrosk_core::document::Invalid;
use metrosk_core::geometry::Span;
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::PaperedPiece;
use metrosk_core::plan::Plan;
use metrosk_core::sketch::{Kind, Shape};
use metrosk_sheet::{
    CutOutline, InchBox, Pictures, PieceOnSheet, SheetToCut, Subject, cut_sheets_pdf, machine_svg,
    numbered,
};
use std::collections::BTreeMap;
use uuid::Uuid;

/// The sheets of a page's cut plan at true scale, each with its steps and with what shows and what is cut of its pieces, as PDF.
#[utoipa::path(
    get, operation_id = "cut_sheets_pdf", path = "/api/pages/{id}/cut.pdf", tag = "cut", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "application/pdf"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn pdf(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let (name, sheets) = sheets(&app, &member, id).await?;
    let work = move |_: &Cancel| cut_sheets_pdf(&sheets);
    let made = app.compute.run(member.team(), Work::Drawing, work).await?;
    let made = made.map_err(|e| Failure::Internal(e.to_string()))?;
    let file = file_name(&format!("{name} cutting"), ".pdf");
    Ok((download("application/pdf", &file), made))
}

/// The pieces of a page for a cutting machine: one layer a sheet, in inches, as SVG.
#[utoipa::path(
    get, operation_id = "cut_sheets_svg", path = "/api/pages/{id}/cut.svg", tag = "cut", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = String, content_type = "image/svg+xml"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn svg(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<(HeaderMap, String), Failure> {
    let (name, sheets) = sheets(&app, &member, id).await?;
    let file = file_name(&format!("{name} cutting"), ".svg");
    Ok((download("image/svg+xml", &file), machine_svg(&sheets)))
}

/// The page's name, and the sheets that its plan cuts.
async fn sheets(
    app: &App,
    member: &Member,
    id: Uuid,
) -> Result<(String, Vec<SheetToCut>), Failure> {
    let (name, sheets) = drawn_sheets(app, member, id).await?;
    if sheets.is_empty() {
        let allowed = "a page with papers, of which something is cut";
        return Err(Invalid::one("papers", "nothing to cut", allowed).into());
    }
    Ok((name, sheets.into_iter().map(|s| s.sheet).collect()))
}

/// The sheets of a page that no cut is made of yet, each as an order to the cutting machine.
pub(super) async fn machine_sheets(
    app: &App,
    member: &Member,
    id: Uuid,
) -> Result<Vec<SheetOrder>, Failure> {
    let (_, sheets) = drawn_sheets(app, member, id).await?;
    let order = |drawn: DrawnSheet| SheetOrder {
        svg: machine_svg(std::slice::from_ref(&drawn.sheet)),
        name: drawn.sheet.name,
    };
    let whole = sheets.into_iter().filter(|s| !s.is_begun);
    Ok(whole.map(order).collect())
}

/// A sheet as it is drawn, and whether any of its cuts is made.
struct DrawnSheet {
    sheet: SheetToCut,
    is_begun: bool,
}

async fn drawn_sheets(
    app: &App,
    member: &Member,
    id: Uuid,
) -> Result<(String, Vec<DrawnSheet>), Failure> {
    let page = fitted_page(app, member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let asked = PlanAsked {
        unit: plan.unit,
        papers: plan.papers.decisions.clone(),
        cut: plan.cut.decisions.clone(),
        layout: page.layout.clone(),
        page: Some(id),
        limit: LIMIT,
    };
    let name = page.name.clone();
    let draw = move |planned: &Planned| drawn(&page, &plan, planned);
    let sheets = plan_cuts(app, member, asked, draw).await?;
    Ok((name, sheets))
}

fn drawn(page: &FittedPage, plan: &Plan, planned: &Planned) -> Vec<DrawnSheet> {
    let pictures = Pictures::new();
    let subject = Subject {
        name: &page.name,
        sketch: &plan.sketch.decisions.sketch,
        layout: &planned.layout,
        way: "",
        pictures: &pictures,
    };
    let numbers: BTreeMap<String, String> = numbered(&subject)
        .into_iter()
        .map(|n| (n.block.block.id.clone(), n.number))
        .collect();
    let to_cut = planned.papered.to_cut();
    let pieces: BTreeMap<String, &PaperedPiece> = to_cut.map(|p| (p.name(), p)).collect();
    let cuts = &planned.cuts;
    let sheets = cuts.sheets.iter().filter(|s| !s.cuts.is_empty());
    sheets
        .map(|sheet| {
            let on_it = sheet
                .pieces
                .iter()
                .filter(|p| !sheet.wrong.contains(&p.name));
            let drawn = on_it.filter_map(|p| {
                let piece = pieces.get(&p.name)?;
                Some(on_sheet(piece, p.area, p.is_turned, &numbers, planned.unit))
            });
            let steps = sheet.steps(cuts.trimmer, planned.unit);
            let sheet_to_cut = SheetToCut {
                name: name_of(sheet, &planned.things),
                size: (inches(sheet.w), inches(sheet.h)),
                spoiled: sheet.spoiled.iter().map(|a| inch_box(*a)).collect(),
                pieces: drawn.collect(),
                steps: steps.into_iter().map(|s| s.text).collect(),
            };
            DrawnSheet {
                sheet: sheet_to_cut,
                is_begun: sheet.done > 0,
            }
        })
        .collect()
}

fn name_of(sheet: &PlannedSheet, things: &Things) -> String {
    let (thing, rest) = sheet.item.split_once('#').unwrap_or((&sheet.item, ""));
    let name = things
        .get(thing)
        .map_or("A paper that is gone", |(item, _)| item.name.as_str());
    if rest.is_empty() {
        format!("{name}, sheet {}", sheet.copy)
    } else {
        format!("{name}, what is left of it")
    }
}

fn inches(ticks: i64) -> f64 {
    Length::from_ticks(ticks).to_units(Unit::Inch)
}

fn inch_box(area: Area) -> InchBox {
    [area.x, area.y, area.w, area.h].map(inches)
}

fn on_sheet(
    piece: &PaperedPiece,
    area: Area,
    is_turned: bool,
    numbers: &BTreeMap<String, String>,
    unit: Unit,
) -> PieceOnSheet {
    let size = |span: Span| {
        let side = |ticks: f64| Length::from_ticks(ticks.round() as i64).to_ruler_text(unit);
        format!("{} × {}", side(span.w()), side(span.h()))
    };
    let cut = piece.piece.cut;
    // What is cut out of its middle turns with it.
    let hole = |hole: Span| {
        let side = |v: f64| inches(v.round() as i64);
        let (left, top) = (inches(area.x), inches(area.y));
        let (x, y) = (side(hole.l - cut.l), side(hole.t - cut.t));
        if is_turned {
            let right = side(cut.b - hole.b);
            [left + right, top + x, side(hole.h()), side(hole.w())]
        } else {
            [left + x, top + y, side(hole.w()), side(hole.h())]
        }
    };
    let kind = piece.kind.map_or("ground", Kind::word);
    let number = numbers.get(&piece.piece.block);
    let slice = piece
        .slice
        .map_or_else(String::new, |n| format!(", part {n}"));
    PieceOnSheet {
        label: number.map_or_else(
            || format!("the {kind}{slice}"),
            |n| format!("{n}, the {kind}{slice}"),
        ),
        sizes: format!("shows {}, cut {}", size(piece.piece.shows), size(cut)),
        at: inch_box(area),
        outline: outline_of(piece, is_turned),
        holes: piece.holes().into_iter().map(hole).collect(),
    }
}

/// The outline of a piece within what is cut, turned with it. A piece that is put together, or of which not all is cut, is cut straight: scissors
/// follow.
fn outline_of(piece: &PaperedPiece, is_turned: bool) -> CutOutline {
    match &piece.shape {
        Some(Shape::Ellipse) if piece.slice.is_none() => CutOutline::Round,
        Some(shape @ (Shape::Triangle(_) | Shape::Polygon(_)))
            if piece.slice.is_none() && piece.is_all_cut =>
        {
            let cut = piece.piece.cut;
            let corners = shape.outline(cut);
            let corner = |[x, y]: &[f64; 2]| {
                let (across, down) = ((x - cut.l) / cut.w(), (y - cut.t) / cut.h());
                if is_turned {
                    [1.0 - down, across]
                } else {
                    [across, down]
                }
            };
            let edge = corners
                .edges()
                .next()
                .map(|e| e.iter().map(corner).collect());
            edge.map_or(CutOutline::Straight, CutOutline::Corners)
        }
        _ => CutOutline::Straight,
    }
}
