//! The cut plan to take away: on paper at true scale, and for cutting machines.

use super::{LIMIT, things};
use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::routes::exports::{FittedPage, fitted_page};
use crate::features::stash::holding::{items_of, read_items, see_through};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Id, download};
use crate::http::names::file_name;
use crate::limit::within;
use crate::state::App;
use axum::extract::State;
use axum::http::HeaderMap;
use metrosk_core::Cancel;
use metrosk_core::cutting::{Area, InStash, PageCuts, PlannedSheet, page_cuts};
use metrosk_core::document::Invalid;
use metrosk_core::geometry::Span;
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::{Papered, PaperedPiece, papered};
use metrosk_core::plan::Plan;
use metrosk_core::sketch::{Kind, Shape};
use metrosk_core::stash::Item;
use metrosk_sheet::{
    InchBox, Pictures, PieceOnSheet, SheetToCut, Subject, cut_sheets_pdf, machine_svg, numbered,
};
use std::collections::BTreeMap;
use uuid::Uuid;

type Things = BTreeMap<String, (Item, u32)>;

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
    let page = fitted_page(app, member, id).await?;
    let plan = Plan::from_json(&page.plan)?;
    let decisions = &plan.papers.decisions;
    let things = things(app, member, decisions, Some(id)).await?;
    let ids = items_of(decisions);
    let named = read_items(&mut *app.pool.acquire().await?, member.team(), &ids).await?;
    let name = page.name.clone();
    let work = move |cancel: &Cancel| {
        let found = papered(
            plan.unit,
            &page.layout,
            &plan.papers.decisions,
            &see_through(&named),
        );
        let in_stash: BTreeMap<String, InStash<'_>> = things
            .iter()
            .map(|(id, (item, free))| (id.clone(), InStash { item, free: *free }))
            .collect();
        let cuts = within(cancel, LIMIT, |cancel| {
            page_cuts(plan.unit, &found, &in_stash, &plan.cut.decisions, cancel)
        });
        drawn(&page, &plan, &found, &cuts, &things)
    };
    let sheets = app.compute.run(member.team(), Work::Fit, work).await?;
    if sheets.is_empty() {
        let allowed = "a page with papers, of which something is cut";
        return Err(Invalid::one("papers", "nothing to cut", allowed).into());
    }
    Ok((name, sheets))
}

fn drawn(
    page: &FittedPage,
    plan: &Plan,
    found: &Papered,
    cuts: &PageCuts,
    things: &Things,
) -> Vec<SheetToCut> {
    let pictures = Pictures::new();
    let subject = Subject {
        name: &page.name,
        sketch: &plan.sketch.decisions.sketch,
        layout: &page.layout,
        way: "",
        pictures: &pictures,
    };
    let numbers: BTreeMap<String, String> = numbered(&subject)
        .into_iter()
        .map(|n| (n.block.block.id.clone(), n.number))
        .collect();
    let pieces: BTreeMap<String, &PaperedPiece> = found.to_cut().map(|p| (p.name(), p)).collect();
    let sheets = cuts.sheets.iter().filter(|s| !s.cuts.is_empty());
    sheets
        .map(|sheet| {
            let on_it = sheet
                .pieces
                .iter()
                .filter(|p| !sheet.wrong.contains(&p.name));
            let drawn = on_it.filter_map(|p| {
                let piece = pieces.get(&p.name)?;
                Some(on_sheet(piece, p.area, p.is_turned, &numbers, plan.unit))
            });
            let steps = sheet.steps(cuts.trimmer, plan.unit);
            SheetToCut {
                name: name_of(sheet, things),
                size: (inches(sheet.w), inches(sheet.h)),
                spoiled: sheet.spoiled.iter().map(|a| inch_box(*a)).collect(),
                pieces: drawn.collect(),
                steps: steps.into_iter().map(|s| s.text).collect(),
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
    // What is gutted lies in the piece as it is cut; on a turned piece it would lie across.
    let hole = piece.piece.hole.filter(|_| !is_turned).map(|hole| {
        let side = |v: f64| inches(v.round() as i64);
        [
            side(hole.l - cut.l) + inches(area.x),
            side(hole.t - cut.t) + inches(area.y),
            side(hole.w()),
            side(hole.h()),
        ]
    });
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
        is_round: piece.shape == Some(Shape::Ellipse) && piece.slice.is_none(),
        hole,
    }
}
