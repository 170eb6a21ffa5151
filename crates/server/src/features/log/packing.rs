//! A page's pack out of its plan: what it is made of, measures, steps, credits, tags.

use crate::auth::Member;
use crate::features::building::making_of;
use crate::features::stash::holding::{read_items, see_through};
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::geometry::Span;
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::log::{Pack, PackLine, Supply};
use metrosk_core::papers::papered;
use metrosk_core::plan::Plan;
use metrosk_core::sketch::credit_of;
use metrosk_core::stash::Item;
use metrosk_sheet::{Pictures, Subject, numbered};
use regex::{Captures, Regex};
use std::collections::{BTreeMap, BTreeSet};
use std::io::{Cursor, Write};
use std::sync::LazyLock;
use uuid::Uuid;
use zip::ZipWriter;
use zip::write::SimpleFileOptions;

/// The things of the stash that a plan names.
pub(super) type Items = BTreeMap<String, Item>;

/// A word that may be a block's id.
#[allow(clippy::unwrap_used, reason = "the pattern stands here")]
static WORD: LazyLock<Regex> =
    LazyLock::new(|| Regex::new(r"[A-Za-z][\w:.-]*[\w]|[A-Za-z]\w*").unwrap());

/// Fetches what a plan names out of the stash, gone or not.
pub(super) async fn stash_of(app: &App, member: &Member, plan: &Plan) -> Result<Items, Failure> {
    let papers = plan.papers.decisions.used();
    let papers = papers.keys().map(|p| p.item.as_str());
    let pieces = plan.clusters.decisions.used();
    let title = plan.words.decisions.title.as_ref();
    let sets = title
        .into_iter()
        .flat_map(|t| t.uses.keys().map(String::as_str));
    let named = papers.chain(pieces.keys().copied()).chain(sets);
    let ids: Vec<Uuid> = named.filter_map(|id| Uuid::parse_str(id).ok()).collect();
    read_items(&mut *app.pool.acquire().await?, member.team(), &ids).await
}

/// The pack of a page, and the minutes that its order of building takes.
pub(super) fn pack_of(
    name: &str,
    maker: &str,
    plan: &Plan,
    layout: Option<&Layout>,
    items: &Items,
) -> (Pack, Option<u32>) {
    let writing = plan.words.decisions.writing.as_ref();
    let log = &plan.log.decisions;
    let sketch = &plan.sketch.decisions.sketch;
    let call = plan.call.decisions.call.as_ref();
    let mut credits: Vec<String> = credit_of(&sketch.to_json()["origin"]).into_iter().collect();
    for credit in call.into_iter().flat_map(|c| &c.credits) {
        let said = format!("{} for the {}.", credit.name, credit.what);
        if !credits.contains(&said) {
            credits.push(said);
        }
    }
    let supplies = layout.map_or(Vec::new(), |l| supplies(plan, l, items));
    let kits: BTreeSet<&str> = supplies.iter().filter_map(|s| s.kit.as_deref()).collect();
    let tags = call.map(|c| c.name.as_str()).into_iter().chain(kits);
    let tags: Vec<String> = tags.map(str::to_owned).collect();
    let links = call.into_iter().flat_map(|c| &c.links);
    let links = links.map(|l| format!("{}: {}", l.name, l.url));
    let mut pack = Pack {
        title: name.to_owned(),
        maker: maker.to_owned(),
        credits,
        story: Pack::story_of(log, writing),
        measures: Vec::new(),
        steps: Vec::new(),
        links: links.chain(log.link.clone()).collect(),
        tags,
        supplies,
    };
    let Some(layout) = layout else {
        return (pack, None);
    };
    let numbers = numbers(plan, layout);
    pack.measures = measures(plan, layout, items, &numbers);
    let (steps, minutes) = steps(plan, layout, &numbers);
    pack.steps = steps;
    (pack, Some(minutes))
}

/// The numbers of blocks as on the sketch card, by their layout ids.
pub(crate) fn numbers(plan: &Plan, layout: &Layout) -> BTreeMap<String, String> {
    let none = Pictures::new();
    let subject = Subject {
        name: "",
        sketch: &plan.sketch.decisions.sketch,
        layout,
        way: "",
        pictures: &none,
    };
    numbered(&subject)
        .into_iter()
        .map(|n| (n.block.block.id.clone(), n.number))
        .collect()
}

/// A sentence with blocks by their numbers.
pub(crate) fn with_numbers(text: &str, numbers: &BTreeMap<String, String>) -> String {
    let number = |found: &Captures<'_>| {
        let word = &found[0];
        numbers
            .get(word)
            .cloned()
            .unwrap_or_else(|| word.to_owned())
    };
    WORD.replace_all(text, number).into_owned()
}

fn supplies(plan: &Plan, layout: &Layout, items: &Items) -> Vec<Supply> {
    let mut counts: BTreeMap<String, u32> = BTreeMap::new();
    let papers = papered(
        plan.unit,
        layout,
        &plan.papers.decisions,
        &see_through(items),
    );
    for (id, count) in papers.items_needed(items) {
        *counts.entry(id).or_insert(0) += count;
    }
    for (id, count) in plan.clusters.decisions.used() {
        *counts.entry(id.to_owned()).or_insert(0) += count;
    }
    for set in plan
        .words
        .decisions
        .title
        .iter()
        .flat_map(|t| t.uses.keys())
    {
        counts.entry(set.clone()).or_insert(1);
    }
    let supply = |(id, count): (String, u32)| {
        let item = items.get(&id)?;
        Some(Supply {
            kit: item.kit.clone(),
            name: item.name.clone(),
            count,
        })
    };
    let mut all: Vec<Supply> = counts.into_iter().filter_map(supply).collect();
    all.sort();
    all
}

/// What shows and what to cut, piece by piece.
fn measures(
    plan: &Plan,
    layout: &Layout,
    items: &Items,
    numbers: &BTreeMap<String, String>,
) -> Vec<PackLine> {
    let decisions = &plan.papers.decisions;
    let papers = papered(plan.unit, layout, decisions, &see_through(items));
    let size = |span: Span, unit: Unit| {
        let side = |ticks: f64| Length::from_ticks(ticks.round() as i64).to_ruler_text(unit);
        format!("{} × {}", side(span.w()), side(span.h()))
    };
    let line = |piece: &metrosk_core::papers::PaperedPiece| {
        let paper = piece.paper.as_ref().and_then(|p| items.get(&p.item))?;
        let of = if piece.of.is_none() {
            "the page’s own paper".to_owned()
        } else {
            numbers.get(&piece.piece.block).cloned()?
        };
        let (shows, cut) = (
            size(piece.piece.shows, plan.unit),
            size(piece.piece.cut, plan.unit),
        );
        let text = if shows == cut {
            format!("{} out of {}", cut, paper.name)
        } else {
            format!("shows {shows}, cut {cut} out of {}", paper.name)
        };
        Some(PackLine { of: Some(of), text })
    };
    papers.pieces.iter().filter_map(line).collect()
}

fn steps(plan: &Plan, layout: &Layout, numbers: &BTreeMap<String, String>) -> (Vec<PackLine>, u32) {
    let built = making_of(plan, layout).built();
    let lines = built.order.iter().map(|s| PackLine {
        of: None,
        text: with_numbers(&built.steps[s.step].text, numbers),
    });
    let work = built.steps.iter().map(|s| s.minutes).sum();
    (lines.collect(), work)
}

/// An archive being written.
pub(super) struct Archive {
    zip: ZipWriter<Cursor<Vec<u8>>>,
}

impl Archive {
    pub(super) fn new() -> Archive {
        Archive {
            zip: ZipWriter::new(Cursor::new(Vec::new())),
        }
    }

    pub(super) fn add(&mut self, name: &str, bytes: &[u8]) -> Result<(), Failure> {
        let written = self
            .zip
            .start_file(name, SimpleFileOptions::default())
            .and_then(|()| Ok(self.zip.write_all(bytes)?));
        written.map_err(|e| Failure::Internal(format!("a pack can't be written: {e}")))
    }

    pub(super) fn finish(self) -> Result<Vec<u8>, Failure> {
        let done = self.zip.finish();
        let done = done.map_err(|e| Failure::Internal(format!("a pack can't be written: {e}")))?;
        Ok(done.into_inner())
    }
}
