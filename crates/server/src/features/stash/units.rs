//! Grids and rings of a page, unit by unit: how many, where each is marked, how many a sheet gives.

use super::papers::{Asked, read, tools};
use super::store::{self as stash, ItemRow};
use super::views::{CutOffDoc, UnitMarkDoc, UnitRowDoc, UnitTableDoc, UnitsAskedDoc, YieldDoc};
use crate::auth::Member;
use crate::compute::Work;
use crate::documents::sketches::SizeDoc;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_core::geometry::Size;
use metrosk_core::papers::{PaperDecisions, PaperSide, UnitTable, papered, punched, yields};
use metrosk_core::stash::{Direction, Item};
use std::collections::{BTreeMap, BTreeSet};
use uuid::Uuid;

/// A grid or ring as makers set it: first, last, then between, each with its mark; and how many units a sheet of each paper gives.
#[utoipa::path(
    post, operation_id = "unit_table", path = "/api/papers/units", tag = "papers", request_body = UnitsAskedDoc,
    responses((status = 200, body = UnitTableDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn table(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<UnitTableDoc>, Failure> {
    let asked = read(&body)?;
    let block = body["block"].as_str().unwrap_or_default().to_owned();
    let of = (block, body["part"].as_u64().unwrap_or(0) as usize);
    let deal = body.get("deal").filter(|d| !d.is_null());
    let papers = deal.map_or_else(
        || Ok(Vec::new()),
        |d| PaperDecisions::papers_of(d).map_err(|e| e.under("deal")),
    )?;
    let named: Vec<Uuid> = papers
        .iter()
        .filter_map(|p| Uuid::parse_str(&p.item).ok())
        .collect();
    let who = (member.team(), member.person.id);
    let rows = stash::papers(&app.pool, who, &named, named.len() as i64).await?;
    let tools = tools(&app, &member).await?;
    let work = move |_: &metrosk_core::Cancel| told(&asked, &of, &papers, &rows, &tools);
    Ok(Json(
        app.compute.run(member.team(), Work::Fit, work).await??,
    ))
}

fn told(
    asked: &Asked,
    of: &(String, usize),
    papers: &[PaperSide],
    rows: &[ItemRow],
    tools: &[(Uuid, Item)],
) -> Result<UnitTableDoc, Failure> {
    let unit = asked.unit;
    let found = papered(unit, &asked.layout, &asked.decisions, &BTreeSet::new());
    let Some(table) = found.unit_table(&asked.layout, of, unit) else {
        let allowed = "a grid or ring of this layout";
        return Err(Invalid::one("block", format!("“{}”", of.0), allowed).into());
    };
    let items: BTreeMap<String, Item> = rows
        .iter()
        .map(|r| Ok((r.id.to_string(), Item::from_json(&r.document)?)))
        .collect::<Result<_, Invalid>>()?;
    let yields = papers
        .iter()
        .filter_map(|paper| Some(yields_of(paper, items.get(&paper.item)?, table.size, tools)));
    let yields = yields.flatten().collect();
    Ok(written(table, yields, asked))
}

/// By straight cuts, then by each punch or die of that size.
fn yields_of(paper: &PaperSide, item: &Item, size: Size, tools: &[(Uuid, Item)]) -> Vec<YieldDoc> {
    let side = item.side(paper.side()).unwrap_or(&item.a);
    let may_turn = side.direction == Direction::Any;
    let by = |tool: Option<Uuid>, each: u32| YieldDoc {
        item: paper.item.clone(),
        tool: tool.map(|id| id.to_string()),
        each,
    };
    let fitting = tools.iter().filter(|(_, tool)| tool.punches(size));
    let punches = fitting.map(|(id, _)| by(Some(*id), punched(item, size, may_turn)));
    std::iter::once(by(None, yields(item, size, may_turn)))
        .chain(punches)
        .collect()
}

fn written(table: UnitTable, yields: Vec<YieldDoc>, asked: &Asked) -> UnitTableDoc {
    let length = |l: metrosk_core::length::Length| l.to_units(asked.unit);
    let rows = table.rows.into_iter().map(|row| UnitRowDoc {
        row: row.row,
        top: length(row.top),
        told: row.told,
        marks: row
            .marks
            .into_iter()
            .map(|m| UnitMarkDoc {
                unit: m.unit,
                at: length(m.at),
                turn: m.turn,
            })
            .collect(),
    });
    UnitTableDoc {
        count: table.count,
        size: SizeDoc {
            w: length(table.size.w),
            h: length(table.size.h),
        },
        rows: rows.collect(),
        cut_off: table
            .cut_off
            .into_iter()
            .map(|(unit, told)| CutOffDoc { unit, told })
            .collect(),
        yields,
    }
}
