//! What a page's plan holds of the stash, kept with the plan in one transaction.

use super::store as stash;
use super::used;
use crate::features::events::store::{self as events, NewEvent};
use crate::features::history::store as revisions;
use crate::features::pages::store as pages;
use crate::http::error::Failure;
use metrosk_core::layout::Layout;
use metrosk_core::papers::{PaperDecisions, papered};
use metrosk_core::plan::{Plan, brought_up, fit_digest};
use metrosk_core::stash::Item;
use sqlx::PgConnection;
use std::collections::{BTreeMap, BTreeSet};
use uuid::Uuid;

/// The items that decisions name.
pub(crate) fn items_of(decisions: &PaperDecisions) -> Vec<Uuid> {
    let used = decisions.used();
    let named: BTreeSet<Uuid> = used
        .keys()
        .filter_map(|p| Uuid::parse_str(&p.item).ok())
        .collect();
    named.into_iter().collect()
}

/// The items of a team by their ids as plans write them.
pub(crate) async fn read_items(
    db: &mut PgConnection,
    team: Uuid,
    ids: &[Uuid],
) -> Result<BTreeMap<String, Item>, Failure> {
    let documents = stash::documents(db, team, ids).await?;
    let read = documents
        .iter()
        .map(|(id, document)| Ok((id.to_string(), Item::from_json(document)?)));
    read.collect()
}

/// Items that hide nothing of what lies under them.
pub(crate) fn see_through(items: &BTreeMap<String, Item>) -> BTreeSet<String> {
    let clear = items.iter().filter(|(_, item)| item.kind.is_see_through());
    clear.map(|(id, _)| id.clone()).collect()
}

/// Lets a page hold what its plan uses: as many sheets as its pieces take where its layout is known, otherwise one of each for now. A page
/// that was put away holds nothing. What a finished page holds goes out of the stash; taken up again it gives that back, and holds it. The page is
/// locked and read here, so that whoever comes late with an older plan in hand still follows the newest.
pub(crate) async fn follow(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    author: &str,
) -> Result<(), Failure> {
    revisions::lock(&mut *db, team, page).await?;
    let Some(page) = pages::find(&mut *db, team, page).await? else {
        return Ok(());
    };
    let is_finished = page.finished_at.is_some();
    let mut wanted = if page.archived_at.is_none() || is_finished {
        wanted_by(db, team, &page).await?
    } else {
        BTreeMap::new()
    };
    let mut changed = BTreeSet::new();
    if is_finished {
        changed.extend(used::give_back(db, team, page.id, &wanted).await?);
        for (item, used) in used::used_of(db, team, page.id).await? {
            if let Some(count) = wanted.get_mut(&item) {
                *count -= used;
            }
        }
        wanted.retain(|_, count| *count > 0);
    } else {
        changed.extend(used::give_back(db, team, page.id, &BTreeMap::new()).await?);
    }
    changed.extend(stash::hold(db, team, page.id, &wanted).await?);
    if is_finished {
        changed.extend(used::use_up(db, team, page.id).await?);
    }
    for item in changed {
        let changed = NewEvent::of(events::STASH, item, 0, author);
        events::tell(&mut *db, team, changed).await?;
    }
    Ok(())
}

/// What a page's plan takes of the stash, by item.
async fn wanted_by(
    db: &mut PgConnection,
    team: Uuid,
    page: &pages::PageRow,
) -> Result<BTreeMap<Uuid, i32>, Failure> {
    let plan = Plan::from_json(&page.plan)?;
    let decisions = &plan.papers.decisions;
    let ids = items_of(decisions);
    let mut wanted: BTreeMap<Uuid, i32> = ids.iter().map(|id| (*id, 1)).collect();
    if !ids.is_empty() {
        let digest = fit_digest(&brought_up(&page.plan));
        if let Some(layout) = pages::layout_of(&mut *db, &digest).await? {
            let layout = Layout::from_json(&layout)?;
            let items = read_items(db, team, &ids).await?;
            let pieces = papered(plan.unit, &layout, decisions, &see_through(&items));
            for (item, count) in pieces.items_needed(&items) {
                if let Ok(id) = Uuid::parse_str(&item) {
                    wanted.insert(id, i32::try_from(count).unwrap_or(i32::MAX));
                }
            }
        }
    }
    for (item, count) in plan.clusters.decisions.used() {
        if let Ok(id) = Uuid::parse_str(item) {
            *wanted.entry(id).or_insert(0) += i32::try_from(count).unwrap_or(i32::MAX);
        }
    }
    Ok(wanted)
}
