//! What lies in the stash, and what pages hold of it.

use serde_json::Value;
use sqlx::types::Json;
use sqlx::{PgConnection, PgExecutor};
use std::collections::BTreeMap;
use uuid::Uuid;

/// Something in the stash.
#[derive(Debug, Clone)]
pub(crate) struct ItemRow {
    pub(crate) id: Uuid,
    /// Whose it is; none: the team's.
    pub(crate) person_id: Option<Uuid>,
    pub(crate) document: Value,
    pub(crate) count: i32,
    pub(crate) held: i32,
    pub(crate) revision: i32,
    pub(crate) holds: Json<Vec<HoldRow>>,
}

/// What a page holds of an item.
#[derive(Debug, Clone, serde::Serialize, serde::Deserialize)]
pub(crate) struct HoldRow {
    pub(crate) page: Uuid,
    pub(crate) name: String,
    pub(crate) wanted: i32,
    pub(crate) held: i32,
}

/// What of an item stands in columns of its own.
#[derive(Debug, Clone)]
pub(crate) struct NewItem<'a> {
    pub(crate) person: Option<Uuid>,
    pub(crate) kind: &'a str,
    pub(crate) document: &'a Value,
    pub(crate) words: &'a str,
    /// Its longer and its shorter side, in ticks.
    pub(crate) sides: (i64, i64),
    pub(crate) count: i32,
}

/// What is looked for.
#[derive(Debug, Clone, Default)]
pub(crate) struct Search {
    pub(crate) words: Vec<String>,
    pub(crate) kind: Option<&'static str>,
    pub(crate) long: i64,
    pub(crate) wide: i64,
}

/// The query of a team's items that a person sees: the team's, and her own.
macro_rules! items {
    ($which:literal, $($argument:expr),+) => {
        sqlx::query_as!(
            ItemRow,
            "SELECT i.id, i.person_id, i.document, i.count, i.held, i.revision, \
             (SELECT coalesce(jsonb_agg(jsonb_build_object('page', p.id, 'name', p.name, 'wanted', h.wanted, 'held', h.held) \
                 ORDER BY h.asked_at), '[]') FROM stash_holds h JOIN pages p ON p.id = h.page_id WHERE h.item_id = i.id) \
             AS \"holds!: Json<Vec<HoldRow>>\" \
             FROM stash_items i WHERE i.team_id = $1 AND (i.person_id IS NULL OR i.person_id = $2) "
                + $which,
            $($argument),+
        )
    };
}

/// What is found, so many from an offset, in the order in which it was put away.
pub(crate) async fn list(
    db: impl PgExecutor<'_>,
    (team, person): (Uuid, Uuid),
    search: &Search,
    (most, from): (i64, i64),
) -> sqlx::Result<Vec<ItemRow>> {
    let words: Vec<String> = search
        .words
        .iter()
        .map(|w| {
            let plain = w
                .replace('\\', r"\\")
                .replace('%', r"\%")
                .replace('_', r"\_");
            format!("%{plain}%")
        })
        .collect();
    items!(
        "AND i.gone_at IS NULL AND i.words LIKE ALL ($3::text[]) AND ($4::text IS NULL OR i.kind = $4) \
         AND i.long_side >= $5 AND i.short_side >= $6 ORDER BY i.made_at, i.id LIMIT $7 OFFSET $8",
        team,
        person,
        &words,
        search.kind,
        search.long,
        search.wide,
        most,
        from
    )
    .fetch_all(db)
    .await
}

/// All papers of a team's stash that a person sees, and whatever else of it is named.
pub(crate) async fn papers(
    db: impl PgExecutor<'_>,
    (team, person): (Uuid, Uuid),
    named: &[Uuid],
    most: i64,
) -> sqlx::Result<Vec<ItemRow>> {
    items!(
        "AND ((i.gone_at IS NULL AND i.kind NOT IN ('letters', 'embellishment', 'tool')) OR i.id = ANY ($3)) \
         ORDER BY i.id = ANY ($3) DESC, i.made_at, i.id LIMIT $4",
        team,
        person,
        named,
        most
    )
    .fetch_all(db)
    .await
}

/// One of a team's, that a person sees.
pub(crate) async fn find(
    db: impl PgExecutor<'_>,
    (team, person): (Uuid, Uuid),
    id: Uuid,
) -> sqlx::Result<Option<ItemRow>> {
    items!("AND i.gone_at IS NULL AND i.id = $3", team, person, id)
        .fetch_optional(db)
        .await
}

/// The documents of these items, gone or not.
pub(crate) async fn documents(
    db: impl PgExecutor<'_>,
    team: Uuid,
    ids: &[Uuid],
) -> sqlx::Result<Vec<(Uuid, Value)>> {
    let rows = sqlx::query!(
        "SELECT id, document FROM stash_items WHERE team_id = $1 AND id = ANY ($2)",
        team,
        ids
    )
    .fetch_all(db)
    .await?;
    Ok(rows.into_iter().map(|r| (r.id, r.document)).collect())
}

/// How many things a team's stash has.
pub(crate) async fn count(db: impl PgExecutor<'_>, team: Uuid) -> sqlx::Result<i64> {
    sqlx::query_scalar!(
        "SELECT count(*) AS \"count!\" FROM stash_items WHERE team_id = $1 AND gone_at IS NULL",
        team
    )
    .fetch_one(db)
    .await
}

/// Puts something away.
pub(crate) async fn insert(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    item: NewItem<'_>,
    made_by: &str,
) -> sqlx::Result<()> {
    sqlx::query!(
        "INSERT INTO stash_items (id, team_id, person_id, kind, document, words, long_side, short_side, count, made_by) \
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)",
        id,
        team,
        item.person,
        item.kind,
        item.document,
        item.words,
        item.sides.0,
        item.sides.1,
        item.count,
        made_by
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Locks an item: how many there are, how many are held, and its revision.
pub(crate) async fn lock(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
) -> sqlx::Result<Option<(i32, i32, i32)>> {
    let row = sqlx::query!(
        "SELECT count, held, revision FROM stash_items WHERE team_id = $1 AND id = $2 AND gone_at IS NULL FOR UPDATE",
        team,
        id
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|r| (r.count, r.held, r.revision)))
}

/// Writes a locked item anew.
pub(crate) async fn change(
    db: impl PgExecutor<'_>,
    team: Uuid,
    id: Uuid,
    item: NewItem<'_>,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE stash_items SET person_id = $3, kind = $4, document = $5, words = $6, long_side = $7, short_side = $8, count = $9, \
         revision = revision + 1 WHERE team_id = $1 AND id = $2",
        team,
        id,
        item.person,
        item.kind,
        item.document,
        item.words,
        item.sides.0,
        item.sides.1,
        item.count
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Locks those of these items that a team has: how many of each pages hold.
pub(crate) async fn held_of(
    db: impl PgExecutor<'_>,
    team: Uuid,
    ids: &[Uuid],
) -> sqlx::Result<BTreeMap<Uuid, i32>> {
    let rows = sqlx::query!(
        "SELECT id, held FROM stash_items WHERE team_id = $1 AND id = ANY ($2) AND gone_at IS NULL ORDER BY id FOR UPDATE",
        team,
        ids
    )
    .fetch_all(db)
    .await?;
    Ok(rows.into_iter().map(|r| (r.id, r.held)).collect())
}

/// Puts many things away at once, or writes those anew that are locked already. Whose they are stays.
pub(crate) async fn put_all(
    db: &mut PgConnection,
    team: Uuid,
    items: &[(Uuid, NewItem<'_>)],
    made_by: &str,
) -> sqlx::Result<()> {
    for some in items.chunks(1_000) {
        let ids: Vec<Uuid> = some.iter().map(|(id, _)| *id).collect();
        let texts = |of: fn(&NewItem<'_>) -> String| -> Vec<String> {
            some.iter().map(|(_, item)| of(item)).collect()
        };
        let documents: Vec<Value> = some.iter().map(|(_, i)| i.document.clone()).collect();
        let long: Vec<i64> = some.iter().map(|(_, i)| i.sides.0).collect();
        let short: Vec<i64> = some.iter().map(|(_, i)| i.sides.1).collect();
        let counts: Vec<i32> = some.iter().map(|(_, i)| i.count).collect();
        sqlx::query!(
            "INSERT INTO stash_items (id, team_id, kind, document, words, long_side, short_side, count, made_by) \
             SELECT id, $1, kind, document, words, long_side, short_side, count, $2 \
             FROM unnest($3::uuid[], $4::text[], $5::jsonb[], $6::text[], $7::bigint[], $8::bigint[], $9::integer[]) \
                 AS t (id, kind, document, words, long_side, short_side, count) \
             ON CONFLICT (id) DO UPDATE SET kind = excluded.kind, document = excluded.document, words = excluded.words, \
                 long_side = excluded.long_side, short_side = excluded.short_side, count = excluded.count, revision = stash_items.revision + 1 \
             WHERE stash_items.team_id = $1",
            team,
            made_by,
            &ids,
            &texts(|i| i.kind.to_owned()),
            &documents,
            &texts(|i| i.words.to_owned()),
            &long,
            &short,
            &counts
        )
        .execute(&mut *db)
        .await?;
    }
    Ok(())
}

/// Takes a locked item out of the stash. Plans that named it keep its name.
pub(crate) async fn take_out(db: impl PgExecutor<'_>, team: Uuid, id: Uuid) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE stash_items SET gone_at = now(), revision = revision + 1 WHERE team_id = $1 AND id = $2",
        team,
        id
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// What a page asks for and what it holds, by item.
async fn holds_of(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
) -> sqlx::Result<BTreeMap<Uuid, (i32, i32)>> {
    let rows = sqlx::query!(
        "SELECT item_id, wanted, held FROM stash_holds WHERE team_id = $1 AND page_id = $2",
        team,
        page
    )
    .fetch_all(db)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| (r.item_id, (r.wanted, r.held)))
        .collect())
}

/// Lets a page hold what its plan asks for now, as far as there is enough; what it lets go of goes to who has waited longest. Which items
/// are held otherwise than before.
pub(crate) async fn hold(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    wanted: &BTreeMap<Uuid, i32>,
) -> sqlx::Result<Vec<Uuid>> {
    let before = holds_of(db, team, page).await?;
    let asked: BTreeMap<Uuid, i32> = before
        .iter()
        .map(|(id, (wanted, _))| (*id, *wanted))
        .collect();
    let all_held = before.values().all(|(wanted, held)| wanted == held);
    if asked == *wanted && all_held {
        return Ok(Vec::new());
    }
    let mut named: Vec<Uuid> = before.keys().chain(wanted.keys()).copied().collect();
    named.sort_unstable();
    named.dedup();
    // Always in the order of their ids, so that two pages never wait for one another.
    let items = sqlx::query!(
        "SELECT id, count, held FROM stash_items WHERE team_id = $1 AND id = ANY ($2) AND gone_at IS NULL ORDER BY id FOR UPDATE",
        team,
        &named
    )
    .fetch_all(&mut *db)
    .await?;
    // What another page gave up meanwhile may have come here: only under the lock it stands still.
    let before = holds_of(db, team, page).await?;
    let mut changed = Vec::new();
    for item in items {
        let (_, had) = before.get(&item.id).copied().unwrap_or_default();
        let asks = wanted.get(&item.id).copied().unwrap_or(0);
        let gets = asks.min(item.count - item.held + had);
        write_hold(db, team, (item.id, page), asks, gets).await?;
        move_held(db, item.id, gets - had).await?;
        if gets < had {
            share_out(db, item.id).await?;
        }
        if (asks, gets) != before.get(&item.id).copied().unwrap_or_default() {
            changed.push(item.id);
        }
    }
    Ok(changed)
}

async fn write_hold(
    db: &mut PgConnection,
    team: Uuid,
    (item, page): (Uuid, Uuid),
    wanted: i32,
    held: i32,
) -> sqlx::Result<()> {
    if wanted == 0 {
        sqlx::query!(
            "DELETE FROM stash_holds WHERE item_id = $1 AND page_id = $2",
            item,
            page
        )
        .execute(db)
        .await?;
        return Ok(());
    }
    sqlx::query!(
        "INSERT INTO stash_holds (item_id, page_id, team_id, wanted, held) VALUES ($1, $2, $3, $4, $5) \
         ON CONFLICT (item_id, page_id) DO UPDATE SET wanted = excluded.wanted, held = excluded.held",
        item,
        page,
        team,
        wanted,
        held
    )
    .execute(db)
    .await
    .map(|_| ())
}

async fn move_held(db: &mut PgConnection, item: Uuid, by: i32) -> sqlx::Result<()> {
    if by == 0 {
        return Ok(());
    }
    sqlx::query!(
        "UPDATE stash_items SET held = held + $2 WHERE id = $1",
        item,
        by
    )
    .execute(db)
    .await
    .map(|_| ())
}

/// Gives what is free of a locked item to the pages that ask for more than they hold, who asked first first.
pub(crate) async fn share_out(db: &mut PgConnection, item: Uuid) -> sqlx::Result<()> {
    let waiting = sqlx::query!(
        "SELECT page_id, wanted - held AS \"lacks!\" FROM stash_holds WHERE item_id = $1 AND held < wanted ORDER BY asked_at",
        item
    )
    .fetch_all(&mut *db)
    .await?;
    for page in waiting {
        let free = sqlx::query_scalar!(
            "SELECT count - held AS \"free!\" FROM stash_items WHERE id = $1",
            item
        )
        .fetch_one(&mut *db)
        .await?;
        let gets = free.min(page.lacks);
        if gets <= 0 {
            return Ok(());
        }
        sqlx::query!(
            "UPDATE stash_holds SET held = held + $3 WHERE item_id = $1 AND page_id = $2",
            item,
            page.page_id,
            gets
        )
        .execute(&mut *db)
        .await?;
        move_held(db, item, gets).await?;
    }
    Ok(())
}

/// The main colours of these pictures, where they are known, and the names of their thumbnails.
pub(crate) async fn colours(
    db: impl PgExecutor<'_>,
    team: Uuid,
    pictures: &[Uuid],
) -> sqlx::Result<Vec<(Uuid, Option<Value>, String)>> {
    let rows = sqlx::query!(
        "SELECT id, colours, thumb FROM pictures WHERE team_id = $1 AND id = ANY ($2)",
        team,
        pictures
    )
    .fetch_all(db)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| (r.id, r.colours, r.thumb))
        .collect())
}

/// Keeps a picture's main colours.
pub(crate) async fn keep_colours(
    db: impl PgExecutor<'_>,
    team: Uuid,
    picture: Uuid,
    colours: &Value,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE pictures SET colours = $3 WHERE team_id = $1 AND id = $2",
        team,
        picture,
        colours
    )
    .execute(db)
    .await
    .map(|_| ())
}
