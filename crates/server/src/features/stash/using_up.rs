//! What is left of a kit, and which of the pages in the making would use it up.

use super::holding::{items_of, read_items, see_through};
use super::store::{self as stash, ItemRow};
use super::views::{KitQuery, KitUseView};
use crate::auth::Member;
use crate::compute::Work;
use crate::features::layouts::job::fitted;
use crate::features::pages::store::{self as pages, PageRow, Shelf};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{InHand, QueryParams};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_core::layout::Layout;
use metrosk_core::papers::{KitPaper, papered};
use metrosk_core::plan::Plan;
use metrosk_core::stash::Item;
use std::collections::BTreeMap;

/// How many papers and pages are looked through.
const MOST_PAPERS: i64 = 600;
const MOST_PAGES: i64 = 60;

/// The pages in the making that have pieces without a paper, and what each would take of a kit; what uses most of it first.
#[utoipa::path(
    get, operation_id = "use_up_kit", path = "/api/stash/kit", tag = "stash", params(KitQuery),
    responses((status = 200, body = Vec<KitUseView>), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn kit(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    QueryParams(asked): QueryParams<KitQuery>,
) -> Result<Json<Vec<KitUseView>>, Failure> {
    let who = (member.team(), member.person.id);
    let rows = stash::papers(&app.pool, who, &[], MOST_PAPERS).await?;
    let mut making = pages::list(&app.pool, member.team(), Shelf::Making, MOST_PAGES, 0).await?;
    let mut named = Vec::new();
    for page in &mut making {
        if !page.known {
            let found = fitted(&app.compute, member.team(), page.plan.clone()).await?;
            page.layout = found.ok().map(|way| way.layout.to_json());
        }
        named.extend(items_of(&Plan::from_json(&page.plan)?.papers.decisions));
    }
    let items = read_items(&mut *app.pool.acquire().await?, member.team(), &named).await?;
    let work = move |_: &metrosk_core::Cancel| uses(&asked.kit, &rows, &making, &items);
    Ok(Json(
        app.compute.run(member.team(), Work::Fit, work).await??,
    ))
}

fn uses(
    kit: &str,
    rows: &[ItemRow],
    making: &[PageRow],
    items: &BTreeMap<String, Item>,
) -> Result<Vec<KitUseView>, Failure> {
    let mut own = Vec::new();
    for row in rows {
        let item = Item::from_json(&row.document)?;
        if item.kit.as_deref() == Some(kit) && item.size.is_some() {
            let free = u32::try_from(row.count - row.held).unwrap_or(0);
            own.push((row.id.to_string(), item, free));
        }
    }
    let papers: Vec<KitPaper<'_>> = own
        .iter()
        .map(|(id, item, free)| KitPaper {
            id,
            item,
            free: *free,
        })
        .collect();
    let mut views = Vec::new();
    for page in making {
        if let Some(view) = use_by(page, &papers, items)? {
            views.push(view);
        }
    }
    views.sort_by_key(|v: &KitUseView| (!v.finishes, std::cmp::Reverse(v.served)));
    Ok(views)
}

fn use_by(
    page: &PageRow,
    papers: &[KitPaper<'_>],
    items: &BTreeMap<String, Item>,
) -> Result<Option<KitUseView>, Invalid> {
    let Some(layout) = &page.layout else {
        return Ok(None);
    };
    let plan = Plan::from_json(&page.plan)?;
    let layout = Layout::from_json(layout)?;
    let decisions = &plan.papers.decisions;
    let found = papered(plan.unit, &layout, decisions, &see_through(items));
    let used = found.use_of_kit(papers);
    Ok((used.served > 0).then(|| KitUseView {
        page: page.id,
        name: page.name.clone(),
        open: used.open,
        served: used.served,
        finishes: used.finishes(papers),
        takes: used.takes,
    }))
}
