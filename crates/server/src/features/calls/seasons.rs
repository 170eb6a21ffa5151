//! Rows of calls, takings and chains put together for the core's season, and told.

use super::days;
use super::store::hops::LinkRow;
use super::store::{CallRow, TakingRow};
use super::views::moment;
use super::views::season::{FreeView, MakerView, NoticeView, SeasonCallView, SeasonView};
use crate::features::history::store::settled_in;
use chrono::NaiveDate;
use chrono_tz::Tz;
use metrosk_core::calls::Call;
use metrosk_core::season::{SeasonCall, Stands, Taking, free_from, notices};
use std::collections::HashMap;
use uuid::Uuid;

/// A team's calls as they were found, with what belongs to each.
pub(crate) struct Found {
    pub(crate) calls: Vec<CallRow>,
    pub(crate) takings: Vec<TakingRow>,
    pub(crate) links: Vec<LinkRow>,
}

/// Who looks, where, and whom else there is.
pub(crate) struct Looking<'a> {
    pub(crate) me: Uuid,
    pub(crate) zone: Tz,
    pub(crate) makers: &'a [(Uuid, String)],
}

/// A call with its takings, read.
struct Joined {
    row: CallRow,
    call: Option<Call>,
    makers: Vec<MakerView>,
    season: SeasonCall,
}

/// How far a page is: how many stations are settled, and whether its fit is among them. A fit whose pins clash needs a look.
pub(crate) fn progress(taking: &TakingRow) -> (usize, bool) {
    let noted = taking.settled.zip(taking.fit_settled);
    let (settled, fit) = match (noted, &taking.plan) {
        (Some(noted), _) => noted,
        (None, Some(plan)) => settled_in(plan),
        (None, None) => return (0, false),
    };
    let clashes = fit && taking.clash.is_some();
    let settled = usize::try_from(settled).unwrap_or_default();
    (settled - usize::from(clashes), fit && !clashes)
}

/// What the season comes to.
pub(crate) fn season(found: Found, looking: &Looking<'_>) -> SeasonView {
    let today = days::today(looking.zone);
    let joined = joined(found, looking, today);
    let calls: Vec<SeasonCall> = joined.iter().map(|j| j.season.clone()).collect();
    let me = looking.makers.iter().find(|m| m.0 == looking.me);
    let me = me.map_or("", |m| m.1.as_str());
    let notices = notices(me, &calls, today).into_iter().map(|n| {
        let about = &joined[n.call];
        let mine = n.maker.as_deref() == Some(me);
        let page = about.makers.iter().find(|m| m.me).and_then(|m| m.page);
        NoticeView {
            what: n.what.name().to_owned(),
            call: about.row.id,
            page: page.filter(|_| mine),
            mine,
            text: n.text,
        }
    });
    let free = looking.makers.iter().map(|(_, name)| FreeView {
        maker: name.clone(),
        from: free_from(name, &calls, today),
    });
    SeasonView {
        today,
        notices: notices.collect(),
        free: free.collect(),
        calls: joined.into_iter().map(|j| view(j, today)).collect(),
    }
}

/// Who takes part in one call.
pub(crate) fn makers(found: Found, looking: &Looking<'_>) -> Vec<MakerView> {
    let today = days::today(looking.zone);
    let one = joined(found, looking, today).pop();
    one.map(|j| j.makers).unwrap_or_default()
}

fn joined(found: Found, looking: &Looking<'_>, today: NaiveDate) -> Vec<Joined> {
    let mut takings: HashMap<Uuid, Vec<TakingRow>> = HashMap::new();
    for taking in found.takings {
        takings.entry(taking.call_id).or_default().push(taking);
    }
    let mut links: HashMap<Uuid, Vec<LinkRow>> = HashMap::new();
    for link in found.links {
        links.entry(link.call_id).or_default().push(link);
    }
    let join = |row: CallRow| {
        let takings = takings.remove(&row.id).unwrap_or_default();
        let chain = links.remove(&row.id).unwrap_or_default();
        join(row, &takings, &chain, looking, today)
    };
    found.calls.into_iter().map(join).collect()
}

fn join(
    row: CallRow,
    takings: &[TakingRow],
    chain: &[LinkRow],
    looking: &Looking<'_>,
    today: NaiveDate,
) -> Joined {
    let call = Call::from_json(&row.document).ok();
    let stands: Vec<(usize, bool)> = takings.iter().map(progress).collect();
    let settled = |person: Uuid| {
        let at = takings.iter().position(|t| t.person_id == person);
        at.is_some_and(|n| stands[n].1 || takings[n].finished_at.is_some())
    };
    let mut season = SeasonCall {
        name: call.as_ref().map(|c| c.name.clone()).unwrap_or_default(),
        due: call.as_ref().and_then(|c| c.due_in(looking.zone)),
        makers: Vec::new(),
    };
    let mut makers = Vec::new();
    for (taking, (count, _)) in takings.iter().zip(&stands) {
        let place = chain
            .iter()
            .position(|l| l.person_id == Some(taking.person_id));
        let before = place.and_then(|p| p.checked_sub(1)).map(|p| &chain[p]);
        // Somebody from outside is waited for until a sketch stands for her page.
        let waits_for = before
            .filter(|b| b.person_id.map_or(b.sketch_id.is_none(), |p| !settled(p)))
            .map(|b| b.maker.clone());
        let finished = taking.finished_at.is_some();
        season.makers.push(Taking {
            maker: taking.maker.clone(),
            stands: match (finished, taking.page_name.is_some()) {
                (true, _) => Stands::Finished,
                (false, true) => Stands::Begun,
                (false, false) => Stands::Taken,
            },
            due: place.and_then(|p| days::read(chain[p].day)),
            waits_for: waits_for.clone().filter(|_| !finished),
        });
        makers.push(MakerView {
            person: taking.person_id,
            name: taking.maker.clone(),
            me: taking.person_id == looking.me,
            page: taking.page_id.filter(|_| taking.page_name.is_some()),
            page_name: taking.page_name.clone(),
            settled: *count,
            finished,
            due: place.and_then(|p| days::read(chain[p].day)),
            late_days: None,
            waits_for,
        });
    }
    for (maker, taking) in makers.iter_mut().zip(&season.makers) {
        maker.late_days = season.late_days(taking, today);
    }
    Joined {
        row,
        call,
        makers,
        season,
    }
}

fn view(joined: Joined, today: NaiveDate) -> SeasonCallView {
    let call = joined.call.as_ref();
    SeasonCallView {
        id: joined.row.id,
        kind: joined.row.document["kind"]
            .as_str()
            .unwrap_or("challenge")
            .to_owned(),
        due: joined.season.due,
        due_at: call.and_then(Call::due_at).map(moment),
        shown: call.and_then(|c| c.shown),
        prize: call.and_then(|c| c.prize),
        prize_at: call.and_then(Call::prize_at).map(moment),
        open: joined.season.is_open(today),
        comes_again: joined.row.series.is_some(),
        name: joined.season.name,
        makers: joined.makers,
    }
}
