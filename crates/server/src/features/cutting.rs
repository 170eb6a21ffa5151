//! A page's cut list and cut plan: what is cut from which sheet, by which steps. Without a page's row: what is asked stands in the body.

pub(crate) mod taking_away;
pub(crate) mod views;

use crate::auth::Member;
use crate::compute::Work;
use crate::features::stash::holding::{items_of, read_items, see_through};
use crate::features::stash::papers::free_for;
use crate::features::stash::store::{self as stash, Search};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::limit::within;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::cutting::{CutDecisions, InStash, page_cuts};
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use metrosk_core::papers::{PaperDecisions, papered};
use metrosk_core::stash::{Item, ItemKind};
use serde_json::Value;
use std::collections::BTreeMap;
use std::time::Duration;
use uuid::Uuid;
use views::{PageCutsAskedDoc, PageCutsDoc};

/// How long a better plan is looked for.
const LIMIT: Duration = Duration::from_millis(2_000);
/// How many tools are looked through for a trimmer.
const MOST_TOOLS: i64 = 100;

/// What is to be cut for a page, sheet by sheet. What is begun stays as it is; what is short is told before the first cut.
#[utoipa::path(
    post, operation_id = "page_cuts", path = "/api/cut/planned", tag = "cut", request_body = PageCutsAskedDoc,
    responses((status = 200, body = PageCutsDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn planned(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let unit = if body["unit"] == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let papers = body.get("papers").unwrap_or(&Value::Null);
    let papers = if papers.is_null() {
        PaperDecisions::default()
    } else {
        PaperDecisions::from_json(papers, unit).map_err(|e| e.under("papers"))?
    };
    let decided = body.get("cut").filter(|cut| !cut.is_null());
    let decided = decided.map_or(Ok(CutDecisions::default()), |cut| {
        CutDecisions::from_json(cut, unit).map_err(|e| e.under("cut"))
    })?;
    let layout = body.get("layout").unwrap_or(&Value::Null);
    let layout = Layout::from_json(layout).map_err(|e| e.under("layout"))?;
    let page = body["page"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok());
    let things = things(&app, &member, &papers, page).await?;
    let ids = items_of(&papers);
    let named = read_items(&mut *app.pool.acquire().await?, member.team(), &ids).await?;
    let work = move |cancel: &metrosk_core::Cancel| {
        let found = papered(unit, &layout, &papers, &see_through(&named));
        let in_stash: BTreeMap<String, InStash<'_>> = things
            .iter()
            .map(|(id, (item, free))| (id.clone(), InStash { item, free: *free }))
            .collect();
        let cuts = within(cancel, LIMIT, |cancel| {
            page_cuts(unit, &found, &in_stash, &decided, cancel)
        });
        cuts.to_json(unit)
    };
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}

/// The papers that a page uses with how many it may take, and the tools there are.
async fn things(
    app: &App,
    member: &Member,
    papers: &PaperDecisions,
    page: Option<Uuid>,
) -> Result<BTreeMap<String, (Item, u32)>, Failure> {
    let who = (member.team(), member.person.id);
    let named = items_of(papers);
    let mut rows = stash::papers(&app.pool, who, &named, named.len() as i64).await?;
    let tools = Search {
        words: Vec::new(),
        kind: Some(ItemKind::Tool.name()),
        long: 0,
        wide: 0,
    };
    rows.extend(stash::list(&app.pool, who, &tools, (MOST_TOOLS, 0)).await?);
    rows.iter()
        .map(|row| {
            let item = Item::from_json(&row.document)?;
            Ok((row.id.to_string(), (item, free_for(row, page))))
        })
        .collect()
}
