//! What lies in the stash: put away, looked for, changed, taken out.

use super::store::{self as stash, ItemRow, NewItem, Search};
use super::views::{
    SaidView, StashChange, StashHoldView, StashInWords, StashItemView, StashPage, StashQuery,
    ToPutAway,
};
use crate::auth::{Maker, Member};
use crate::features::events::store::{self as events, NewEvent};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, QueryParams};
use crate::http::idempotency::{Answer, Once, begin};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use metrosk_core::document::Invalid;
use metrosk_core::length::Unit;
use metrosk_core::stash::{Item, ItemKind, Said, said, wanted};
use serde_json::{Value, json};
use uuid::Uuid;

/// How many are told at once.
const MOST_TOLD: i64 = 400;
/// How many may be put away at once.
const MOST_AT_ONCE: usize = 100;
/// The longest text about things to put away.
const LONGEST_TEXT: usize = 2_000;
/// How many things a team's stash may have.
const MOST_ITEMS: i64 = 20_000;

fn unit(name: Option<&str>) -> Unit {
    if name == Some("mm") {
        Unit::Millimetre
    } else {
        Unit::Inch
    }
}

/// An item as it crosses the wire: how many there are stands in the row.
pub(super) fn view(row: ItemRow) -> StashItemView {
    let mut item = row.document;
    item["count"] = json!(row.count);
    let holds = row.holds.0.into_iter().map(|h| StashHoldView {
        page: h.page,
        name: h.name,
        wanted: h.wanted,
        held: h.held,
    });
    StashItemView {
        id: row.id,
        revision: row.revision,
        own: row.person_id.is_some(),
        held: row.held,
        free: row.count - row.held,
        holds: holds.collect(),
        item,
    }
}

/// What stands in columns of its own.
pub(crate) fn columns<'a>(
    item: &Item,
    document: &'a Value,
    words: &'a str,
    person: Option<Uuid>,
) -> NewItem<'a> {
    let sides = item
        .size
        .map_or((0, 0), |s| (s.w.max(s.h).ticks(), s.w.min(s.h).ticks()));
    NewItem {
        person,
        kind: item.kind.name(),
        document,
        words,
        sides,
        count: i32::try_from(item.count).unwrap_or(i32::MAX),
    }
}

/// What is in the stash: the team's, and her own.
#[utoipa::path(
    get, operation_id = "list_stash", path = "/api/stash", tag = "stash", params(StashQuery),
    responses((status = 200, body = StashPage), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn list(
    State(app): State<App>,
    member: Member,
    QueryParams(query): QueryParams<StashQuery>,
) -> Result<Json<StashPage>, Failure> {
    let text = query.search.unwrap_or_default();
    let asked = wanted(
        &text.chars().take(200).collect::<String>(),
        unit(query.unit.as_deref()),
    );
    let search = Search {
        words: asked.words,
        kind: asked.kind.map(ItemKind::name),
        long: asked.long.map_or(0, |l| l.ticks()),
        wide: asked.wide.map_or(0, |l| l.ticks()),
    };
    let who = (member.team(), member.person.id);
    let page = (MOST_TOLD + 1, i64::from(query.from));
    let mut rows = stash::list(&app.pool, who, &search, page).await?;
    let more = rows.len() as i64 > MOST_TOLD;
    rows.truncate(MOST_TOLD as usize);
    Ok(Json(StashPage {
        items: rows.into_iter().map(view).collect(),
        more,
    }))
}

/// What a maker says, understood as things to put away. Nothing is put away by it.
#[utoipa::path(
    post, operation_id = "read_stash", path = "/api/stash/said", tag = "stash", request_body = StashInWords,
    responses((status = 200, body = Vec<SaidView>), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn in_words(
    _member: Member,
    Body(asked): Body<StashInWords>,
) -> Result<Json<Vec<SaidView>>, Failure> {
    let length = asked.text.chars().count();
    if length > LONGEST_TEXT {
        let allowed = format!("up to {LONGEST_TEXT} characters");
        return Err(Invalid::one("text", format!("{length} characters"), allowed).into());
    }
    let told = said(&asked.text, unit(Some(&asked.unit)));
    let views = told.into_iter().map(|s| match s {
        Said::Item(item) => SaidView {
            item: Some(item.to_json()),
            unknown: None,
        },
        Said::Unknown(words) => SaidView {
            item: None,
            unknown: Some(words),
        },
    });
    Ok(Json(views.collect()))
}

/// Puts things away: all of them, or none.
#[utoipa::path(
    post, operation_id = "put_away", path = "/api/stash", tag = "stash", request_body = ToPutAway,
    params(("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 201, body = Vec<StashItemView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn put_away(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Body(asked): Body<ToPutAway>,
) -> Result<Answer, Failure> {
    if asked.items.is_empty() || asked.items.len() > MOST_AT_ONCE {
        let found = format!("{} things", asked.items.len());
        return Err(Invalid::one("items", found, format!("1 to {MOST_AT_ONCE} at once")).into());
    }
    let read = asked.items.iter().enumerate();
    let items: Vec<Item> = read
        .map(|(n, item)| Item::from_json(item).map_err(|e| e.under(&format!("items[{n}]"))))
        .collect::<Result<_, _>>()?;
    let mut write = begin!(once, &app, &maker, "put away");
    let there = stash::count(write.db(), maker.team()).await?;
    if there + items.len() as i64 > MOST_ITEMS {
        return Err(Failure::Standing(format!(
            "A stash takes {MOST_ITEMS} things, and has {there}. Take out what is used up first."
        )));
    }
    let person = asked.own.then_some(maker.person.id);
    let mut views = Vec::new();
    for item in &items {
        let id = Uuid::new_v4();
        let (document, words) = (item.to_json(), item.words());
        let row = columns(item, &document, &words, person);
        stash::insert(write.db(), maker.team(), id, row, maker.name()).await?;
        let new = NewEvent::of(events::STASH, id, 1, maker.name());
        events::tell(write.db(), maker.team(), new).await?;
        let who = (maker.team(), maker.person.id);
        let row = stash::find(write.db(), who, id).await?;
        views.push(view(row.ok_or(Failure::Missing("thing in the stash"))?));
    }
    write.finish(StatusCode::CREATED, &views).await
}

/// Writes a thing anew. There can't be fewer of it than pages hold.
#[utoipa::path(
    put, operation_id = "change_stash_item", path = "/api/stash/{id}", tag = "stash", request_body = StashChange, params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = StashItemView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn change(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    Body(asked): Body<StashChange>,
) -> Result<Json<StashItemView>, Failure> {
    let item = Item::from_json(&asked.item).map_err(|e| e.under("item"))?;
    let missing = || Failure::Missing("thing in the stash");
    let who = (maker.team(), maker.person.id);
    let before = stash::find(&app.pool, who, id).await?.ok_or_else(missing)?;
    let mut tx = app.pool.begin().await?;
    let (_, held, revision) = stash::lock(&mut *tx, maker.team(), id)
        .await?
        .ok_or_else(missing)?;
    if revision != asked.revision {
        return Err(Failure::Standing(format!(
            "“{}” has been changed meanwhile. Look at it again, and change it then.",
            item.name
        )));
    }
    if i64::from(item.count) < i64::from(held) {
        let found = item.count.to_string();
        let allowed = format!("{held} or more: so many are held for pages");
        return Err(Invalid::one("item.count", found, allowed).into());
    }
    let (document, words) = (item.to_json(), item.words());
    let person = asked
        .own
        .map_or(before.person_id, |own| own.then_some(maker.person.id));
    let row = columns(&item, &document, &words, person);
    stash::change(&mut *tx, maker.team(), id, row).await?;
    stash::share_out(&mut tx, id).await?;
    let changed = NewEvent::of(events::STASH, id, revision + 1, maker.name());
    events::tell(&mut *tx, maker.team(), changed).await?;
    tx.commit().await?;
    let now = stash::find(&app.pool, who, id).await?.ok_or_else(missing)?;
    Ok(Json(view(now)))
}

/// Takes a thing out of the stash. What a page holds stays.
#[utoipa::path(
    delete, operation_id = "take_out_of_stash", path = "/api/stash/{id}", tag = "stash", params(("id" = Uuid, Path)),
    responses(
        (status = 204, description = "It is out."),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn take_out(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<StatusCode, Failure> {
    let missing = || Failure::Missing("thing in the stash");
    let mut tx = app.pool.begin().await?;
    let (_, _, revision) = stash::lock(&mut *tx, maker.team(), id)
        .await?
        .ok_or_else(missing)?;
    let who = (maker.team(), maker.person.id);
    let row = stash::find(&mut *tx, who, id).await?.ok_or_else(missing)?;
    let pages: Vec<&str> = row.holds.0.iter().map(|h| h.name.as_str()).collect();
    if !pages.is_empty() {
        return Err(Failure::Standing(format!(
            "It is held for {}. Choose another paper there first.",
            pages.join(", ")
        )));
    }
    stash::take_out(&mut *tx, maker.team(), id).await?;
    let gone = NewEvent::of(events::STASH, id, revision + 1, maker.name());
    events::tell(&mut *tx, maker.team(), gone).await?;
    tx.commit().await?;
    Ok(StatusCode::NO_CONTENT)
}
