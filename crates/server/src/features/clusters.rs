//! Clusters of a page, and what is seen on it before the glue. Without a page's row: what is asked stands in the body.

pub(crate) mod views;

use crate::auth::Member;
use crate::compute::Work;
use crate::documents::clusters::{ClusterChoiceDoc, ClusterPieceDoc};
use crate::features::stash::papers::{free_for, photo_colours};
use crate::features::stash::store::{self as stash, ItemRow, Search};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Document, InHand};
use crate::state::App;
use axum::Json;
use axum::extract::State;
use metrosk_core::checks::Check;
use metrosk_core::checks::page::{LookOver, LookedOver, PageFinding};
use metrosk_core::clusters::{LaidCluster, Share, Thing, main_photo_of, shared_out};
use metrosk_core::document::{Invalid, length_number, number};
use metrosk_core::geometry::Span;
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::papers::PaperSide;
use metrosk_core::plan::Plan;
use metrosk_core::sketch::{ClusterSize, Kind};
use metrosk_core::stash::{Colour, Item, ItemKind, Side, Swatch};
use metrosk_core::words::WordsElsewhere;
use serde_json::{Value, json};
use std::collections::BTreeMap;
use uuid::Uuid;
use views::{ClustersAskedDoc, ClustersLaidDoc, ShareAskedDoc, SharedOutDoc};

/// How many pieces of the stash are looked at for echoes.
const MOST_THINGS: i64 = 600;
/// The most pieces that are shared out at once.
const MOST_SHARED: usize = 120;

fn read(body: &Value) -> Result<(Plan, Layout), Invalid> {
    let part = |name: &str| body.get(name).unwrap_or(&Value::Null);
    let plan = Plan::from_json(part("plan")).map_err(|e| e.under("plan"))?;
    let layout = Layout::from_json(part("layout")).map_err(|e| e.under("layout"))?;
    Ok((plan, layout))
}

/// What the stash has to say about a page.
struct Known {
    items: BTreeMap<String, Item>,
    things: BTreeMap<String, Thing>,
    free: BTreeMap<String, u32>,
    photo_colours: BTreeMap<String, Vec<Colour>>,
}

impl Known {
    fn of(
        rows: &[ItemRow],
        page: Option<Uuid>,
        photo_colours: BTreeMap<String, Vec<Colour>>,
    ) -> Result<Known, Invalid> {
        let mut known = Known {
            items: BTreeMap::new(),
            things: BTreeMap::new(),
            free: BTreeMap::new(),
            photo_colours,
        };
        for row in rows {
            let (id, item) = (row.id.to_string(), Item::from_json(&row.document)?);
            if item.kind == ItemKind::Embellishment {
                known.free.insert(id.clone(), free_for(row, page));
            }
            known.things.insert(id.clone(), Thing::of(&id, &item));
            known.items.insert(id, item);
        }
        Ok(known)
    }

    fn side(&self, paper: &PaperSide) -> Option<Side> {
        self.items.get(&paper.item)?.side(paper.side()).cloned()
    }
}

/// The things that a plan names: papers, letter sets and pieces.
fn named(plan: &Plan) -> Vec<Uuid> {
    let papers = plan.papers.decisions.used();
    let papers = papers.keys().map(|p| p.item.as_str());
    let pieces = plan.clusters.decisions.used();
    let title = plan.words.decisions.title.as_ref();
    let sets = title
        .into_iter()
        .flat_map(|t| &t.taken)
        .map(|l| l.set.as_str());
    let all = papers.chain(pieces.keys().copied()).chain(sets);
    all.filter_map(|id| Uuid::parse_str(id).ok()).collect()
}

/// The clusters of a page as they lie, and what an experienced eye sees on the page.
#[utoipa::path(
    post, operation_id = "clusters_laid", path = "/api/clusters/laid", tag = "clusters", request_body = ClustersAskedDoc,
    responses((status = 200, body = ClustersLaidDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn laid(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<Value>, Failure> {
    let (plan, layout) = read(&body)?;
    let page = body["page"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok());
    let who = (member.team(), member.person.id);
    let pieces = Search {
        kind: Some(ItemKind::Embellishment.name()),
        ..Search::default()
    };
    let mut rows = stash::list(&app.pool, who, &pieces, (MOST_THINGS, 0)).await?;
    let named: Vec<Uuid> = named(&plan)
        .into_iter()
        .filter(|id| rows.iter().all(|r| r.id != *id))
        .collect();
    rows.extend(stash::papers(&app.pool, who, &named, named.len() as i64).await?);
    let colours = photo_colours(&app, &member, &pictures_of(&body)).await?;
    let known = Known::of(&rows, page, colours)?;
    let work = move |_: &metrosk_core::Cancel| answer(&plan, &layout, &known);
    Ok(Json(
        app.compute.run(member.team(), Work::Fit, work).await??,
    ))
}

/// The prints of a plan with their pictures.
fn pictures_of(body: &Value) -> Value {
    let prints = body["plan"]["photos"]["photos"].as_array();
    let of = |p: &Value| json!({"print": p["id"], "picture": p["picture"]});
    let photos: Vec<Value> = prints.into_iter().flatten().map(of).collect();
    json!({"photos": photos})
}

fn answer(plan: &Plan, layout: &Layout, known: &Known) -> Result<Value, Failure> {
    let look = look_over(plan, layout, known);
    let seen = look.looked_over();
    let mut findings: Vec<Value> = seen
        .findings
        .iter()
        .map(|f| finding_json(f, layout, plan.unit))
        .collect();
    let mut fine: Vec<&str> = seen.fine.clone();
    let off = &plan.clusters.decisions.off;
    for (name, found) in lying_findings(layout)? {
        if off.contains(name) {
            continue;
        }
        if found.is_empty() {
            fine.push(name);
        }
        findings.extend(found);
    }
    if !off.contains("call") {
        let asked = call_findings(plan, layout);
        if asked.is_empty() && plan.call.decisions.call.is_some() {
            fine.push("call");
        }
        findings.extend(asked);
    }
    let used = plan.clusters.decisions.used();
    let gone: Vec<&str> = used
        .keys()
        .filter(|id| !known.things.contains_key(**id))
        .copied()
        .collect();
    let short: Vec<Value> = used
        .iter()
        .filter_map(|(id, count)| {
            let free = known.free.get(*id)?;
            let name = &known.things.get(*id)?.name;
            let lacking = count.checked_sub(*free).filter(|n| *n > 0)?;
            Some(json!({"item": id, "name": name, "lacking": lacking}))
        })
        .collect();
    Ok(json!({
        "clusters": clusters_json(&seen, layout, plan.unit),
        "strewn": seen.laid.strewn.iter().map(|at| point_json(*at, plan.unit)).collect::<Vec<_>>(),
        "triangle": triangle_json(&seen, plan.unit),
        "findings": findings, "fine": fine, "gone": gone, "short": short,
    }))
}

fn look_over<'a>(plan: &'a Plan, layout: &'a Layout, known: &Known) -> LookOver<'a> {
    let papers = &plan.papers.decisions;
    let mut sides = BTreeMap::new();
    for (of, choice) in &papers.pieces {
        let made = choice.made.filter(|m| !m.edges).map(|m| Side {
            colours: vec![Swatch {
                colour: m.colour,
                share: 1.0,
            }],
            ..Side::default()
        });
        let side = made.or_else(|| known.side(choice.paper.as_ref()?));
        sides.extend(side.map(|s| (of.clone(), s)));
    }
    let ground = |n: usize| papers.ground[n].as_ref().and_then(|p| known.side(p));
    let title = plan.words.decisions.title.as_ref();
    let set = title.and_then(|t| known.items.get(&t.taken.first()?.set));
    LookOver {
        unit: plan.unit,
        layout,
        photos: &plan.photos.decisions,
        papers: sides,
        grounds: [ground(0), ground(1)],
        photo_colours: known.photo_colours.clone(),
        title: set.and_then(|s| s.a.ground()),
        words_elsewhere: WordsElsewhere::of(
            layout,
            plan.photos.decisions.photos.prints(),
            &plan.words.decisions,
        ),
        clusters: &plan.clusters.decisions,
        things: known.things.clone(),
        free: known.free.clone(),
    }
}

/// What is shut in, and what nearly agrees.
fn lying_findings(layout: &Layout) -> Result<[(&'static str, Vec<Value>); 2], Failure> {
    let written = layout.to_json();
    let asked = json!({"format": "metrosk-check/1", "unit": written["unit"], "layout": written});
    let check = Check::from_json(&asked)?;
    let found = check.checked().to_json(&check);
    let mut all = [("trapped", Vec::new()), ("near", Vec::new())];
    for finding in found["findings"].as_array().into_iter().flatten() {
        let blocks = match finding.get("between") {
            Some(between) => between.clone(),
            None => finding["blocks"].clone(),
        };
        let names: Vec<&str> = blocks
            .as_array()
            .into_iter()
            .flatten()
            .filter_map(Value::as_str)
            .collect();
        let what = finding["what"].as_str().unwrap_or_default();
        let edge = finding["edge"].as_str().unwrap_or_default();
        let cures = finding["cures"].as_array().into_iter().flatten().map(|c| {
            json!({"text": c["text"], "block": c.get("block"), "box": c.get("box"), "patch": null})
        });
        let told = json!({"what": what, "key": format!("{what} {edge} {}", names.join(" ")), "text": finding["text"],
            "box": finding.get("box"), "blocks": blocks, "edge": finding.get("edge"), "cures": cures.collect::<Vec<_>>()});
        all[usize::from(what == "near")].1.push(told);
    }
    Ok(all)
}

/// What the call asks for and the page does not have yet.
fn call_findings(plan: &Plan, layout: &Layout) -> Vec<Value> {
    let found = metrosk_core::calls::check(&plan.call.decisions, &plan.request(), Some(layout));
    let missing = found.iter().filter(|f| f.seen == Some(false) && !f.ticked);
    missing
        .map(|f| {
            json!({"what": "call", "key": format!("call {}", f.id), "text": format!("The call asks for it, and the page has it not yet: {}", f.asks),
                "box": null, "blocks": [], "edge": null, "cures": []})
        })
        .collect()
}

fn finding_json(finding: &PageFinding, layout: &Layout, unit: Unit) -> Value {
    let ids: Vec<&str> = finding
        .blocks
        .iter()
        .map(|n| layout.blocks[*n].block.id.as_str())
        .collect();
    let cures: Vec<Value> = finding
        .cures
        .iter()
        .map(|c| json!({"text": c.text, "block": null, "box": null, "patch": c.patch}))
        .collect();
    json!({"what": finding.what, "key": finding.key, "text": finding.text, "box": finding.place.map(|p| box_json(p, unit)),
        "blocks": ids, "edge": null, "cures": cures})
}

fn units(ticks: f64, unit: Unit) -> Value {
    length_number(Length::from_ticks(ticks.round() as i64), unit)
}

fn point_json((x, y): (f64, f64), unit: Unit) -> Value {
    json!({"x": units(x, unit), "y": units(y, unit)})
}

fn box_json(span: Span, unit: Unit) -> Value {
    json!({"x": units(span.l, unit), "y": units(span.t, unit), "w": units(span.w(), unit), "h": units(span.h(), unit)})
}

fn clusters_json(seen: &LookedOver, layout: &Layout, unit: Unit) -> Vec<Value> {
    let piece = |p: &metrosk_core::clusters::LaidPiece| {
        json!({"piece": p.placed.piece, "item": p.thing.item, "at": point_json(p.placed.at, unit), "turn": number(p.placed.turn),
            "w": length_number(p.thing.size.w, unit), "h": length_number(p.thing.size.h, unit),
            "lift": p.lift.name(), "fixed": p.fixing.with, "mind": p.fixing.mind})
    };
    let cluster = |c: &LaidCluster| {
        json!({"block": layout.blocks[c.block].block.id, "of": c.of.0, "part": c.of.1, "size": c.size.name(),
            "pieces": c.pieces.iter().map(piece).collect::<Vec<_>>()})
    };
    seen.laid.clusters.iter().map(cluster).collect()
}

fn triangle_json(seen: &LookedOver, unit: Unit) -> Value {
    let Some(triangle) = &seen.triangle else {
        return Value::Null;
    };
    let corners = triangle.corners;
    let sides: Vec<Value> = (0..3)
        .map(|n| {
            let (a, b) = (corners[n], corners[(n + 1) % 3]);
            units((a.0 - b.0).hypot(a.1 - b.1), unit)
        })
        .collect();
    json!({"corners": corners.map(|c| point_json(c, unit)), "sides": sides})
}

/// Shares pieces out over a page's clusters: counts by size, similar things in each, the largest by the main photo.
#[utoipa::path(
    post, operation_id = "clusters_shared", path = "/api/clusters/shared", tag = "clusters", request_body = ShareAskedDoc,
    responses((status = 200, body = SharedOutDoc), (status = 401, body = Problem, content_type = "application/problem+json"), (status = 422, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn shared(
    State(app): State<App>,
    member: Member,
    _in_hand: InHand,
    Document(body): Document,
) -> Result<Json<SharedOutDoc>, Failure> {
    let (plan, layout) = read(&body)?;
    let asked: Vec<(String, usize)> = body["things"]
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(|t| {
            Some((
                t["item"].as_str()?.to_owned(),
                t["count"].as_u64()? as usize,
            ))
        })
        .collect();
    let all: usize = asked.iter().map(|(_, n)| n).sum();
    if all == 0 || all > MOST_SHARED {
        let allowed = format!("1 to {MOST_SHARED} pieces to share out");
        return Err(Invalid::one("things", format!("{all} pieces"), allowed).into());
    }
    let ids: Vec<Uuid> = asked
        .iter()
        .filter_map(|(id, _)| Uuid::parse_str(id).ok())
        .collect();
    let who = (member.team(), member.person.id);
    let rows = stash::papers(&app.pool, who, &ids, ids.len() as i64).await?;
    let known = Known::of(&rows, None, BTreeMap::new())?;
    if let Some((id, _)) = asked.iter().find(|(id, _)| !known.things.contains_key(id)) {
        return Err(Invalid::one("things", format!("“{id}”"), "things of the stash").into());
    }
    Ok(Json(share(&plan, &layout, &known, &asked)?))
}

fn share(
    plan: &Plan,
    layout: &Layout,
    known: &Known,
    asked: &[(String, usize)],
) -> Result<SharedOutDoc, Failure> {
    let things: Vec<&Thing> = asked
        .iter()
        .filter_map(|(id, count)| Some((known.things.get(id)?, *count)))
        .flat_map(|(thing, count)| std::iter::repeat_n(thing, count))
        .collect();
    let main = main_photo_of(layout, plan.photos.decisions.photos.prints());
    let mut of = Vec::new();
    let mut clusters = Vec::new();
    for (n, identity) in layout.identities().into_iter().enumerate() {
        let block = &layout.blocks[n];
        if block.block.kind != Kind::Cluster {
            continue;
        }
        let key = (identity.block.to_owned(), identity.part);
        let chosen = plan.clusters.decisions.clusters.get(&key);
        let size = chosen.and_then(|c| c.size).or(block.block.size);
        let by_focal = main.is_some_and(|m| {
            let (photo, own) = (layout.blocks[m].extent(), block.extent());
            photo.overlaps(own, 0.0)
        });
        clusters.push(Share {
            size: size.unwrap_or(ClusterSize::Medium),
            by_focal,
        });
        of.push((key, chosen.map_or(0, |c| c.seed)));
    }
    if clusters.is_empty() {
        let allowed = "a layout with a cluster in it";
        return Err(Invalid::one("layout", "no cluster", allowed).into());
    }
    let mut answer = SharedOutDoc {
        clusters: BTreeMap::new(),
    };
    for (((block, part), seed), taken) in of.into_iter().zip(shared_out(&things, &clusters)) {
        let pieces = taken.into_iter().map(|n| ClusterPieceDoc {
            item: things[n].item.clone(),
            lift: None,
            at: None,
            turn: None,
        });
        let choice = ClusterChoiceDoc {
            size: None,
            seed: u32::try_from(seed).ok(),
            pieces: Some(pieces.collect()),
        };
        let parts = answer.clusters.entry(block).or_default();
        parts.insert(part.to_string(), choice);
    }
    Ok(answer)
}
