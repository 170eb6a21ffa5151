//! A page's papers: what becomes of them on a layout, and which suits which piece. Without a page's row: what is asked stands in the body.

use super::detail::paper_details;
use super::holding::{items_of, read_items, see_through};
use super::store::{self as stash, ItemRow, Search};
use super::views::{
    DealAskedDoc, DealtDoc, PaperedAskedDoc, PaperedDoc, RankedPaperDoc, RankingAskedDoc,
};
use crate::auth::Member;
use crate::compute::Work;
use crate::documents::plans::PaperRefDoc;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::document::Invalid;
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use metrosk_core::papers::choosing::{Candidate, ranked};
use metrosk_core::papers::{
    Dealing, FreePaper, Known, PaperDecisions, PaperSide, PaperedPiece, dies_given, papered,
};
use metrosk_core::stash::{Colour, Item, ItemKind};
use serde_json::{Value, json};
use std::collections::BTreeMap;
use uuid::Uuid;

/// How many papers are ranked at once.
const MOST_RANKED: i64 = 600;
/// How many tools are looked through for punches and dies.
const MOST_TOOLS: i64 = 200;
/// How many colours of a photo count.
const COLOURS: usize = 4;

/// What is asked about a page's papers.
pub(super) struct Asked {
    pub(super) unit: Unit,
    pub(super) decisions: PaperDecisions,
    pub(super) layout: Layout,
}

pub(super) fn read(body: &Value) -> Result<Asked, Invalid> {
    let unit = if body["unit"] == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let decisions = match body.get("papers") {
        Some(papers) => PaperDecisions::from_json(papers, unit).map_err(|e| e.under("papers"))?,
        None => PaperDecisions::default(),
    };
    let layout = body.get("layout").unwrap_or(&Value::Null);
    Ok(Asked {
        unit,
        decisions,
        layout: Layout::from_json(layout).map_err(|e| e.under("layout"))?,
    })
}

/// What becomes of papers on a layout: what shows, what is cut, and how much of the stash that takes.
#[utoipa::path(
    post, operation_id = "papered", path = "/api/papers/placed", tag = "papers", request_body = PaperedAskedDoc,
    responses((status = 200, body = PaperedDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn placed(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let asked = read(&body)?;
    let ids = items_of(&asked.decisions);
    let items = read_items(&mut *app.pool.acquire().await?, member.team(), &ids).await?;
    let tools = if asked.decisions.gut.from.is_empty() {
        Vec::new()
    } else {
        tools(&app, &member).await?
    };
    let details = paper_details(&app, member.team(), &asked.decisions, &items).await?;
    let work = move |_: &metrosk_core::Cancel| {
        let clear = see_through(&items);
        let mut found = papered(asked.unit, &asked.layout, &asked.decisions, &clear);
        found.with_pictures(&details);
        let mut answer = found.to_json(&asked.layout, asked.unit);
        let minded = found.seen_through(&asked.layout, &clear);
        let short = found.short_of(&items, asked.unit);
        for (piece, written) in found
            .pieces
            .iter()
            .zip(answer["pieces"].as_array_mut().into_iter().flatten())
        {
            written["hole_gives"] = hole_gives(piece, &tools, asked.unit);
            written["short"] = json!(short.get(&piece.name()));
            if let (Some(said), Some(told)) =
                (minded.get(&piece.name()), written["told"].as_array_mut())
            {
                told.push(json!(said));
            }
        }
        answer["extras"] = found.extras.iter().map(|e| json!(e.name())).collect();
        answer["needed"] = json!(found.items_needed(&items));
        answer
    };
    Ok(Json(app.compute.run(member.team(), Work::Fit, work).await?))
}

/// The tools of the stash that cut sizes of their own.
pub(super) async fn tools(app: &App, member: &Member) -> Result<Vec<(Uuid, Item)>, Failure> {
    let search = Search {
        kind: Some(ItemKind::Tool.name()),
        ..Search::default()
    };
    let who = (member.team(), member.person.id);
    let rows = stash::list(&app.pool, who, &search, (MOST_TOOLS, 0)).await?;
    rows.iter()
        .map(|row| Ok((row.id, Item::from_json(&row.document)?)))
        .collect()
}

/// What each punch or die gives from a piece's hidden middle.
fn hole_gives(piece: &PaperedPiece, tools: &[(Uuid, Item)], unit: Unit) -> Value {
    let Some(hole) = piece.piece.hole else {
        return Value::Null;
    };
    let all = tools
        .iter()
        .flat_map(|(id, tool)| tool.tool.cuts.iter().map(move |size| (id, *size)));
    let gives = all.filter_map(|(id, size)| {
        let each = dies_given(hole, size);
        let (w, h) = (size.w.to_units(unit), size.h.to_units(unit));
        (each > 0).then(|| json!({"tool": id, "size": {"w": w, "h": h}, "each": each}))
    });
    gives.collect()
}

/// The papers of the stash for one piece, best first, with reasons.
#[utoipa::path(
    post, operation_id = "ranked_papers", path = "/api/papers/ranked", tag = "papers", request_body = RankingAskedDoc,
    responses((status = 200, body = Vec<RankedPaperDoc>), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn rank(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Vec<RankedPaperDoc>>, Failure> {
    let asked = read(&body)?;
    let piece = body["piece"].as_str().unwrap_or_default().to_owned();
    let page = body["page"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok());
    let kit = body["kit"].as_str().map(str::to_owned);
    let who = (member.team(), member.person.id);
    let named = items_of(&asked.decisions);
    let rows = stash::papers(&app.pool, who, &named, MOST_RANKED).await?;
    let photos = photo_colours(&app, &member, &body).await?;
    let work = move |_: &metrosk_core::Cancel| rank_all(&asked, &piece, page, kit, &rows, &photos);
    Ok(Json(
        app.compute.run(member.team(), Work::Fit, work).await??,
    ))
}

/// Deals papers out over the units of a grid or ring: none beside its like where that can be, even counts, equal ones far apart.
#[utoipa::path(
    post, operation_id = "dealt_papers", path = "/api/papers/dealt", tag = "papers", request_body = DealAskedDoc,
    responses((status = 200, body = DealtDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn deal(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<DealtDoc>, Failure> {
    let asked = read(&body)?;
    let block = body["block"].as_str().unwrap_or_default().to_owned();
    let of = (block, body["part"].as_u64().unwrap_or(0) as usize);
    let seed = body["seed"].as_u64().unwrap_or(0);
    let page = body["page"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok());
    let papers = PaperDecisions::papers_of(&body["deal"]).map_err(|e| e.under("deal"))?;
    let named: Vec<Uuid> = papers
        .iter()
        .filter_map(|p| Uuid::parse_str(&p.item).ok())
        .collect();
    let who = (member.team(), member.person.id);
    let rows = stash::papers(&app.pool, who, &named, named.len() as i64).await?;
    let how = if body["rhythm"] == true {
        Dealing::InRhythm
    } else {
        Dealing::Spread
    };
    let work =
        move |_: &metrosk_core::Cancel| deal_out(&asked, &of, page, (how, seed), &papers, &rows);
    Ok(Json(
        app.compute.run(member.team(), Work::Fit, work).await??,
    ))
}

fn deal_out(
    asked: &Asked,
    of: &(String, usize),
    page: Option<Uuid>,
    how: (Dealing, u64),
    papers: &[PaperSide],
    rows: &[ItemRow],
) -> Result<DealtDoc, Failure> {
    let items: BTreeMap<String, Item> = rows
        .iter()
        .map(|r| Ok((r.id.to_string(), Item::from_json(&r.document)?)))
        .collect::<Result<_, Invalid>>()?;
    let found = papered(
        asked.unit,
        &asked.layout,
        &asked.decisions,
        &see_through(&items),
    );
    if found.units_of(of).is_empty() {
        let allowed = "a grid or ring of this layout";
        return Err(Invalid::one("block", format!("“{}”", of.0), allowed).into());
    }
    let mut free = Vec::new();
    for paper in papers {
        let row = rows.iter().find(|r| r.id.to_string() == paper.item);
        let (Some(row), Some(item)) = (row, items.get(&paper.item)) else {
            let found = format!("“{}”", paper.item);
            return Err(Invalid::one("deal", found, "papers of the stash").into());
        };
        free.push(FreePaper {
            paper: paper.clone(),
            item,
            free: free_for(row, page),
        });
    }
    let dealt = found.dealt(&asked.decisions, of, &free, how);
    let paper = |p: PaperSide| PaperRefDoc {
        side: Some(p.side().to_owned()),
        item: p.item,
    };
    Ok(DealtDoc {
        units: dealt
            .units
            .into_iter()
            .map(|(u, p)| (u, paper(p)))
            .collect(),
        met: dealt.met.into_iter().map(|(a, b)| [a, b]).collect(),
        short: dealt.short,
    })
}

/// How many of a thing are free for a page: what it holds itself is.
pub(crate) fn free_for(row: &ItemRow, page: Option<Uuid>) -> u32 {
    let own = row.holds.0.iter().find(|h| Some(h.page) == page);
    (row.count - row.held + own.map_or(0, |h| h.held)).max(0) as u32
}

fn rank_all(
    asked: &Asked,
    piece: &str,
    page: Option<Uuid>,
    kit: Option<String>,
    rows: &[ItemRow],
    photos: &BTreeMap<String, Vec<Colour>>,
) -> Result<Vec<RankedPaperDoc>, Failure> {
    let items: BTreeMap<String, Item> = rows
        .iter()
        .map(|r| Ok((r.id.to_string(), Item::from_json(&r.document)?)))
        .collect::<Result<_, Invalid>>()?;
    let found = papered(
        asked.unit,
        &asked.layout,
        &asked.decisions,
        &see_through(&items),
    );
    let known = Known {
        layout: &asked.layout,
        decisions: &asked.decisions,
        papered: &found,
        items: &items,
        photos,
        kit,
    };
    let Some(place) = known.place_of(piece) else {
        let allowed = "a piece of this layout that shows";
        return Err(Invalid::one("piece", format!("“{piece}”"), allowed).into());
    };
    let candidates: Vec<Candidate> = rows
        .iter()
        .filter_map(|row| Some((row, items.get(&row.id.to_string())?)))
        .flat_map(|(row, item)| sides_of(row, item, page))
        .collect();
    let free: BTreeMap<String, u32> = candidates
        .iter()
        .map(|c| (c.paper.item.clone(), c.free))
        .collect();
    let answer = ranked(&place, &candidates, asked.unit)
        .into_iter()
        .map(|r| RankedPaperDoc {
            free: free.get(&r.paper.item).map_or(0, |f| *f as i32),
            side: r.paper.side().to_owned(),
            item: r.paper.item,
            serves: r.serves,
            points: r.points,
            reasons: r.reasons,
        });
    Ok(answer.collect())
}

/// Both sides of a thing as candidates. What this page holds of it is free for this page.
fn sides_of<'a>(row: &'a ItemRow, item: &'a Item, page: Option<Uuid>) -> Vec<Candidate<'a>> {
    let free = free_for(row, page);
    let other = row
        .holds
        .0
        .iter()
        .find(|h| Some(h.page) != page && h.held > 0);
    let one = |is_b: bool| Candidate {
        paper: PaperSide {
            item: row.id.to_string(),
            is_b,
        },
        item,
        free,
        held_for: other.map(|h| h.name.as_str()),
    };
    let b = item.b.as_ref().map(|_| one(true));
    [Some(one(false)), b].into_iter().flatten().collect()
}

/// The main colours of the photos on a page, by their prints: found once for each picture, and kept.
pub(crate) async fn photo_colours(
    app: &App,
    member: &Member,
    body: &Value,
) -> Result<BTreeMap<String, Vec<Colour>>, Failure> {
    let photos = body["photos"].as_array();
    let prints: Vec<(String, Uuid)> = photos
        .into_iter()
        .flatten()
        .filter_map(|p| {
            let picture = Uuid::parse_str(p["picture"].as_str()?).ok()?;
            Some((p["print"].as_str()?.to_owned(), picture))
        })
        .take(200)
        .collect();
    let ids: Vec<Uuid> = prints.iter().map(|(_, picture)| *picture).collect();
    let mut known: BTreeMap<Uuid, Vec<Colour>> = BTreeMap::new();
    for (id, colours, thumb) in stash::colours(&app.pool, member.team(), &ids).await? {
        let colours = match colours {
            Some(colours) => colours,
            None => {
                let Some(bytes) = app.objects.get(&thumb).await? else {
                    continue;
                };
                let work = move |_: &metrosk_core::Cancel| {
                    let picture = metrosk_vision::decode(&bytes).map_err(|e| e.to_string())?;
                    let found = metrosk_vision::swatches(&picture.pixels, COLOURS);
                    Ok::<_, String>(json!(found.iter().map(|s| s.hex()).collect::<Vec<_>>()))
                };
                let found = app.compute.run(member.team(), Work::Picture, work).await?;
                let found = found.map_err(Failure::Internal)?;
                stash::keep_colours(&app.pool, member.team(), id, &found).await?;
                found
            }
        };
        let all = colours.as_array().into_iter().flatten();
        let read = all.filter_map(|c| Colour::from_hex(c.as_str()?));
        known.insert(id, read.collect());
    }
    let of_print = |(print, picture): (String, Uuid)| Some((print, known.get(&picture)?.clone()));
    Ok(prints.into_iter().filter_map(of_print).collect())
}
