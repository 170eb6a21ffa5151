//! A page's cut plan from what it follows from: read, planned, and drawn by those who ask for it.

use super::LIMIT;
use crate::auth::Member;
use crate::compute::Work;
use crate::features::stash::detail::paper_details;
use crate::features::stash::holding::{items_of, read_items, see_through};
use crate::features::stash::papers::free_for;
use crate::features::stash::store::{self as stash, Search};
use crate::http::error::Failure;
use crate::limit::within;
use crate::state::App;
use metrosk_core::cutting::{Cure, CutDecisions, CutsAsked, InStash, PageCuts, cures, page_cuts};
use metrosk_core::layout::Layout;
use metrosk_core::length::Unit;
use metrosk_core::papers::{PaperDecisions, Papered, papered};
use metrosk_core::stash::{Item, ItemKind};
use std::collections::BTreeMap;
use std::time::Duration;
use uuid::Uuid;

/// How many tools are looked through for a trimmer and for punches.
const MOST_TOOLS: i64 = 200;
/// How long ways out are tried where something is short.
const CURES_LIMIT: Duration = Duration::from_millis(1_500);

/// Things of the stash by their ids, each with how many of it are free for the page.
pub(super) type Things = BTreeMap<String, (Item, u32)>;

/// What a cut plan follows from.
pub(super) struct PlanAsked {
    pub(super) unit: Unit,
    pub(super) papers: PaperDecisions,
    pub(super) cut: CutDecisions,
    pub(super) layout: Layout,
    /// The page: what it holds itself is free for it.
    pub(super) page: Option<Uuid>,
    /// How long a better plan is looked for.
    pub(super) limit: Duration,
}

/// A page's cut plan, with what it was made of.
pub(super) struct Planned {
    pub(super) unit: Unit,
    pub(super) layout: Layout,
    pub(super) papered: Papered,
    pub(super) things: Things,
    pub(super) cuts: PageCuts,
    /// What could give where something is short.
    pub(super) cures: Vec<Cure>,
}

/// Plans the cuts of a page, and hands the plan to whoever draws it, all on a thread that computes.
pub(super) async fn plan_cuts<T: Send + 'static>(
    app: &App,
    member: &Member,
    asked: PlanAsked,
    draw: impl FnOnce(&Planned) -> T + Send + 'static,
) -> Result<T, Failure> {
    let things = things(app, member, &asked.papers, asked.page).await?;
    let ids = items_of(&asked.papers);
    let named = read_items(&mut *app.pool.acquire().await?, member.team(), &ids).await?;
    let details = paper_details(app, member.team(), &asked.papers, &named).await?;
    let work = move |cancel: &metrosk_core::Cancel| {
        let clear = see_through(&named);
        let mut found = papered(asked.unit, &asked.layout, &asked.papers, &clear);
        found.with_pictures(&details);
        let in_stash: BTreeMap<String, InStash<'_>> = things
            .iter()
            .map(|(id, (item, free))| (id.clone(), InStash { item, free: *free }))
            .collect();
        let cuts = within(cancel, asked.limit, |cancel| {
            page_cuts(asked.unit, &found, &in_stash, &asked.cut, cancel)
        });
        let from = CutsAsked {
            unit: asked.unit,
            layout: &asked.layout,
            papers: &asked.papers,
            see_through: &clear,
            stash: &in_stash,
            cut: &asked.cut,
        };
        // A plan made at a glance is followed by a better one, and only what that lacks is lacking.
        let cures = if cuts.short.is_empty() || asked.limit < LIMIT {
            Vec::new()
        } else {
            within(cancel, CURES_LIMIT, |cancel| cures(&from, &cuts, cancel))
        };
        drop(in_stash);
        draw(&Planned {
            unit: asked.unit,
            layout: asked.layout,
            papered: found,
            things,
            cuts,
            cures,
        })
    };
    app.compute.run(member.team(), Work::Fit, work).await
}

/// The papers that a page uses with how many it may take, and the tools there are.
async fn things(
    app: &App,
    member: &Member,
    papers: &PaperDecisions,
    page: Option<Uuid>,
) -> Result<Things, Failure> {
    let who = (member.team(), member.person.id);
    let named = items_of(papers);
    let mut rows = stash::papers(&app.pool, who, &named, named.len() as i64).await?;
    let tools = Search {
        kind: Some(ItemKind::Tool.name()),
        ..Search::default()
    };
    rows.extend(stash::list(&app.pool, who, &tools, (MOST_TOOLS, 0)).await?);
    rows.iter()
        .map(|row| {
            let item = Item::from_json(&row.document)?;
            Ok((row.id.to_string(), (item, free_for(row, page))))
        })
        .collect()
}
