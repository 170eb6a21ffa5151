//! Looking back over the team's finished pages.

use super::views::{LookedBackView, TallyView, ToldPageView};
use crate::auth::Member;
use crate::compute::Work;
use crate::features::pages::store::{self as pages, PageRow, Shelf};
use crate::features::stash::holding::{items_of, read_items};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::InHand;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_core::log::{FinishedPage, LookedBack, Month, look_back, minutes_taken};
use metrosk_core::plan::Plan;
use metrosk_core::stash::Item;
use std::collections::{BTreeMap, BTreeSet};
use time::OffsetDateTime;

/// So many finished pages are looked back on.
const MOST_PAGES: i64 = 2_000;

/// The team's finished pages, counted by month, sketch, kit, maker and colour, with what has not been on a page for long.
#[utoipa::path(
    get, operation_id = "look_back", path = "/api/look-back", tag = "log",
    responses((status = 200, body = LookedBackView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn pages_told(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
) -> Result<Json<LookedBackView>, Failure> {
    let rows = pages::list(&app.pool, member.team(), Shelf::Finished, MOST_PAGES, 0).await?;
    let read = rows
        .into_iter()
        .map(|row| Ok((Plan::from_json(&row.plan)?, row)));
    let told: Vec<(Plan, PageRow)> = read.collect::<Result<_, Invalid>>()?;
    let named: BTreeSet<_> = told
        .iter()
        .flat_map(|(plan, _)| items_of(&plan.papers.decisions))
        .collect();
    let named: Vec<_> = named.into_iter().collect();
    let items = read_items(&mut *app.pool.acquire().await?, member.team(), &named).await?;
    let work = move |_: &metrosk_core::Cancel| view(&told, &items);
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}

fn view(told: &[(Plan, PageRow)], items: &BTreeMap<String, Item>) -> LookedBackView {
    let finished: Vec<FinishedPage> = told
        .iter()
        .map(|(plan, row)| finished(plan, row, items))
        .collect();
    let now = month_of(OffsetDateTime::now_utc());
    let back = look_back(&finished, now);
    let pages = told
        .iter()
        .zip(finished)
        .map(|((_, row), page)| ToldPageView {
            id: row.id,
            name: row.name.clone(),
            month: page.month.name(),
            maker: page.maker,
            sketch: page.sketch,
            kits: page.kits.into_iter().collect(),
            colours: page.colours.into_iter().collect(),
            minutes: page.minutes,
        });
    written(back, pages.collect())
}

fn month_of(at: OffsetDateTime) -> Month {
    Month::of(at.year(), u8::from(at.month()))
}

fn finished(plan: &Plan, row: &PageRow, items: &BTreeMap<String, Item>) -> FinishedPage {
    let used = plan.papers.decisions.used();
    let sides = used.keys().filter_map(|paper| {
        let item = items.get(&paper.item)?;
        Some((item, item.side(paper.side()).unwrap_or(&item.a)))
    });
    let (mut kits, mut colours) = (BTreeSet::new(), BTreeSet::new());
    for (item, side) in sides {
        kits.extend(item.kit.clone());
        colours.extend(side.ground().map(|c| c.name().to_owned()));
    }
    let minutes = minutes_taken(&plan.log.decisions.entries);
    FinishedPage {
        month: month_of(row.finished_at.unwrap_or(row.changed_at)),
        maker: row.author.clone(),
        sketch: plan.sketch.decisions.sketch.name.clone(),
        kits,
        colours,
        minutes: (minutes > 0).then_some(minutes),
    }
}

fn written(back: LookedBack, pages: Vec<ToldPageView>) -> LookedBackView {
    let tally = |tally: Vec<(String, usize)>| {
        tally
            .into_iter()
            .map(|(name, pages)| TallyView { name, pages })
            .collect()
    };
    LookedBackView {
        pages,
        months: tally(back.months),
        sketches: tally(back.sketches),
        kits: tally(back.kits),
        makers: tally(back.makers),
        colours: tally(back.colours),
        minutes: back.minutes.0,
        timed: back.minutes.1,
        not_for_long: back.not_for_long,
    }
}
