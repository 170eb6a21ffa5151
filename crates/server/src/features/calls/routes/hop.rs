//! Hops: the chain of makers, and how a page's bones go on from one to the next.

use super::keep::find;
use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::features::calls::days;
use crate::features::calls::seasons::progress;
use crate::features::calls::store::hops::{self, LinkRow, NewLink};
use crate::features::calls::store::{self as calls, Plans, TakingRow};
use crate::features::calls::views::hop::{ChainDoc, ChangedView, HopLinkView, HopView};
use crate::features::people::store::people;
use crate::features::sketches::store as sketches;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::Cancel;
use metrosk_core::document::Invalid;
use metrosk_core::hop::{self, ChainLink, chain_from_json};
use metrosk_core::layout::Layout;
use metrosk_core::plan::Plan;
use metrosk_core::sketch::Sketch;
use serde_json::{Value, json};
use sqlx::PgConnection;
use uuid::Uuid;

/// What stands before a maker's page in a hop.
pub(crate) enum Before {
    /// A page of a maker of the team, settled.
    Page { maker: String, plan: Value },
    /// A sketch that stands for the page of somebody from outside.
    Sketch { maker: String, document: Value },
}

/// A hop's chain, page by page, and how the sketch changed on its way.
#[utoipa::path(
    get, operation_id = "show_hop", path = "/api/calls/{id}/hop", tag = "calls", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = HopView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn show(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<HopView>, Failure> {
    let mut db = app.pool.acquire().await?;
    Ok(Json(view(&app, &mut db, &member, id).await?))
}

/// Puts another chain in place of a hop's. Who is no longer in it keeps her page; the chain closes up.
#[utoipa::path(
    put, operation_id = "write_hop", path = "/api/calls/{id}/hop", tag = "calls", params(("id" = Uuid, Path)), request_body = ChainDoc,
    responses(
        (status = 200, body = HopView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn write(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
    Body(chain): Body<ChainDoc>,
) -> Result<Json<HopView>, Failure> {
    let links = chain_from_json(&json!({"links": chain.links}))?;
    let mut tx = app.pool.begin().await?;
    let row = find(&mut tx, &maker, id).await?;
    let earlier = hops::links(&mut *tx, maker.team(), &[id]).await?;
    let new = new_links(&mut tx, &maker, &links, &earlier).await?;
    let call = calls::NewCall {
        name: row.document["name"].as_str().unwrap_or_default(),
        document: &row.document,
        due: metrosk_core::calls::Call::from_json(&row.document)?
            .due
            .and_then(days::stored),
        sketch: row.sketch_id,
        series: row.series,
        author: maker.name(),
        reason: "another chain",
    };
    let (from, archived) = (chain.revision, row.archived_at.is_some());
    if !calls::change(&mut tx, maker.team(), id, from, call, archived).await? {
        let newest = Box::new(super::keep::call_view(&mut tx, &maker, id).await?);
        return Err(Failure::StaleCall {
            yours: from,
            newest,
        });
    }
    hops::put(&mut tx, maker.team(), id, &new).await?;
    tx.commit().await?;
    let mut db = app.pool.acquire().await?;
    Ok(Json(view(&app, &mut db, &maker, id).await?))
}

/// The links with their people and sketches found in the team; a day that is new must not be past.
async fn new_links(
    db: &mut PgConnection,
    maker: &Maker,
    links: &[ChainLink],
    earlier: &[LinkRow],
) -> Result<Vec<NewLink>, Failure> {
    let people = people::of_team(&mut *db, maker.team()).await?;
    let mut new = Vec::with_capacity(links.len());
    for (n, link) in links.iter().enumerate() {
        let uuid = |text: &Option<String>| text.as_ref().map(|t| Uuid::parse_str(t).ok());
        let person = match uuid(&link.person) {
            Some(id) => {
                let known = people.iter().find(|p| Some(p.id) == id);
                let known = known.ok_or(Failure::Missing("person"))?;
                if known.role == "guest" {
                    let found = format!("{}, a guest", known.name);
                    let allowed = "a member of the team, or a name for somebody from outside";
                    return Err(Invalid::one(&format!("links[{n}].person"), found, allowed).into());
                }
                id
            }
            None => None,
        };
        let sketch = match uuid(&link.sketch) {
            Some(id) => {
                let id = id.ok_or(Failure::Missing("sketch"))?;
                let found = sketches::find(&mut *db, maker.team(), id).await?;
                Some(found.ok_or(Failure::Missing("sketch"))?.id)
            }
            None => None,
        };
        let was_there = earlier.iter().any(|l| days::read(l.day) == Some(link.day));
        if link.day < days::earliest_today() && !was_there {
            let found = format!("{}, which is past", link.day);
            let at = format!("links[{n}].day");
            return Err(Invalid::one(&at, found, "today or a later day").into());
        }
        let day = days::stored(link.day).ok_or_else(|| {
            Invalid::one(
                &format!("links[{n}].day"),
                link.day.to_string(),
                "a day of this era",
            )
        })?;
        new.push(NewLink {
            person,
            name: link.name.clone(),
            url: link.url.clone(),
            sketch,
            day,
        });
    }
    Ok(new)
}

/// What stands before a maker's place; nothing for the first, or where she stands in no chain.
pub(crate) async fn before_mine(
    db: &mut PgConnection,
    maker: &Maker,
    call: Uuid,
    links: &[LinkRow],
    place: Option<usize>,
) -> Result<Option<Before>, Failure> {
    let Some(before) = place.and_then(|p| p.checked_sub(1)).map(|p| &links[p]) else {
        return Ok(None);
    };
    let maker_before = before.maker.clone();
    let waits = |why: &str| Failure::Standing(format!("{} {why}", before.maker));
    let Some(person) = before.person_id else {
        let id = before.sketch_id.ok_or_else(|| {
            waits(
                "is from outside, and no sketch stands for her page yet: choose one in the chain.",
            )
        })?;
        let row = sketches::find(db, maker.team(), id)
            .await?
            .ok_or(Failure::Missing("sketch"))?;
        return Ok(Some(Before::Sketch {
            maker: maker_before,
            document: row.document,
        }));
    };
    let takings = calls::takings(db, maker.team(), &[call], Plans::All).await?;
    let hers = takings.into_iter().find(|t| t.person_id == person);
    let hers = hers
        .filter(|t| t.page_name.is_some())
        .ok_or_else(|| waits("has not begun her page yet: yours begins with what hers becomes."))?;
    if !is_settled(&hers) {
        return Err(waits(
            "has not settled her page’s fit yet: yours begins with what hers becomes.",
        ));
    }
    Ok(hers.plan.map(|plan| Before::Page {
        maker: maker_before,
        plan,
    }))
}

fn is_settled(taking: &TakingRow) -> bool {
    taking.finished_at.is_some() || progress(taking).1
}

/// The sketch that the next page begins with; where there is none, why.
pub(crate) fn bones_of(before: Before, cancel: &Cancel) -> Result<Sketch, String> {
    match before {
        Before::Sketch { maker, document } => {
            let mut sketch = Sketch::from_json(&document).map_err(|e| e.to_string())?;
            let origin = hop::lifted_from(&maker, &sketch);
            sketch.other.insert("origin".to_owned(), origin);
            Ok(sketch)
        }
        Before::Page { maker, plan } => {
            let plan = Plan::from_json(&plan).map_err(|e| e.to_string())?;
            let fitted = plan.fitted(cancel).ok_or_else(|| {
                "the page before is being worked on; try again in a moment".to_owned()
            })?;
            let layout = fitted
                .map_err(|clash| format!("{maker}’s page can’t go on: {}", clash.text))?
                .layout;
            let own = plan.request().sketch;
            Ok(hop::bones(
                &layout,
                &own.name,
                hop::lifted_from(&maker, &own),
            ))
        }
    }
}

/// A link with what there is of its page.
struct Standing {
    link: LinkRow,
    taking: Option<TakingRow>,
    /// The sketch that stands for it.
    sketch: Option<Value>,
}

async fn view(
    app: &App,
    db: &mut PgConnection,
    member: &Member,
    id: Uuid,
) -> Result<HopView, Failure> {
    let row = find(&mut *db, member, id).await?;
    let links = hops::links(&mut *db, member.team(), &[id]).await?;
    let takings = calls::takings(&mut *db, member.team(), &[id], Plans::All).await?;
    let mut standing = Vec::with_capacity(links.len());
    for link in links {
        let sketch = match link.sketch_id {
            Some(id) => sketches::find(&mut *db, member.team(), id).await?,
            None => None,
        };
        let hers = |t: &&TakingRow| Some(t.person_id) == link.person_id;
        standing.push(Standing {
            taking: takings.iter().find(hers).cloned(),
            sketch: sketch.map(|s| s.document),
            link,
        });
    }
    let me = member.person.id;
    let work = move |cancel: &Cancel| linked(standing, me, cancel);
    let links = app.compute.run(member.team(), Work::Drawing, work).await?;
    Ok(HopView {
        revision: row.revision,
        links,
    })
}

/// The chain with what each page has become, compared with the one before it.
fn linked(standing: Vec<Standing>, me: Uuid, cancel: &Cancel) -> Vec<HopLinkView> {
    let mut before: Option<Sketch> = None;
    let mut found: Vec<HopLinkView> = Vec::with_capacity(standing.len());
    for Standing {
        link,
        taking,
        sketch,
    } in standing
    {
        let plan = taking.as_ref().and_then(|t| t.plan.as_ref());
        let plan = plan.and_then(|p| Plan::from_json(p).ok());
        let layout: Option<Layout> = plan.and_then(|p| Some(p.fitted(cancel)?.ok()?.layout));
        let own = match &layout {
            Some(layout) => Some(hop::bones(layout, "", Value::Null)),
            None => sketch.as_ref().and_then(|s| Sketch::from_json(s).ok()),
        };
        let changed = before.as_ref().zip(own.as_ref()).map(|(before, own)| {
            let d = hop::compare(before, own);
            ChangedView {
                stayed: d.stayed.len(),
                moved: d.moved.len(),
                went: d.went.len(),
                came: d.came.len(),
            }
        });
        let settled = taking.as_ref().is_some_and(is_settled)
            || (link.person_id.is_none() && sketch.is_some());
        let ready = found.last().is_none_or(|b: &HopLinkView| b.settled);
        let page = taking.filter(|t| t.page_name.is_some());
        found.push(HopLinkView {
            me: link.person_id == Some(me),
            person: link.person_id,
            maker: link.maker,
            url: link.url,
            sketch: link.sketch_id,
            day: days::read(link.day).unwrap_or_default(),
            page: page.as_ref().and_then(|p| p.page_id),
            page_name: page.and_then(|p| p.page_name),
            settled,
            ready,
            blocks: own.as_ref().map_or(0, |s| s.blocks.len()),
            drawn: layout.map(|l| l.to_json()).or(sketch),
            changed,
        });
        before = own.or(before);
    }
    found
}
