//! What finished pages took out of the stash, and give back when they are taken up again. SQL only.

use super::store::share_out;
use sqlx::PgConnection;
use std::collections::BTreeMap;
use uuid::Uuid;

/// What a page took out, by item.
pub(crate) async fn used_of(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
) -> sqlx::Result<BTreeMap<Uuid, i32>> {
    let rows = sqlx::query!(
        "SELECT item_id, used FROM stash_used WHERE team_id = $1 AND page_id = $2",
        team,
        page
    )
    .fetch_all(db)
    .await?;
    Ok(rows.into_iter().map(|r| (r.item_id, r.used)).collect())
}

/// All that a finished page holds goes out of the stash. Which items there are fewer of.
pub(crate) async fn use_up(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
) -> sqlx::Result<Vec<Uuid>> {
    let held = sqlx::query!(
        "SELECT item_id FROM stash_holds WHERE team_id = $1 AND page_id = $2 ORDER BY item_id",
        team,
        page
    )
    .fetch_all(&mut *db)
    .await?;
    let mut fewer = Vec::new();
    for row in held {
        // Always in the order of ids, so that two pages never wait for one another.
        sqlx::query!(
            "SELECT id FROM stash_items WHERE id = $1 FOR UPDATE",
            row.item_id
        )
        .fetch_one(&mut *db)
        .await?;
        let gone = sqlx::query!(
            "DELETE FROM stash_holds WHERE item_id = $1 AND page_id = $2 RETURNING held",
            row.item_id,
            page
        )
        .fetch_one(&mut *db)
        .await?;
        if gone.held == 0 {
            continue;
        }
        change_count(db, row.item_id, -gone.held, -gone.held).await?;
        sqlx::query!(
            "INSERT INTO stash_used (item_id, page_id, team_id, used) VALUES ($1, $2, $3, $4) \
             ON CONFLICT (item_id, page_id) DO UPDATE SET used = stash_used.used + excluded.used",
            row.item_id,
            page,
            team,
            gone.held
        )
        .execute(&mut *db)
        .await?;
        fewer.push(row.item_id);
    }
    Ok(fewer)
}

/// A page gives back what it took beyond what it keeps. Which items there are more of.
pub(crate) async fn give_back(
    db: &mut PgConnection,
    team: Uuid,
    page: Uuid,
    keeps: &BTreeMap<Uuid, i32>,
) -> sqlx::Result<Vec<Uuid>> {
    let mut more = Vec::new();
    for (item, used) in used_of(db, team, page).await? {
        let kept = keeps.get(&item).copied().unwrap_or(0).min(used);
        if kept == used {
            continue;
        }
        if kept == 0 {
            sqlx::query!(
                "DELETE FROM stash_used WHERE item_id = $1 AND page_id = $2",
                item,
                page
            )
            .execute(&mut *db)
            .await?;
        } else {
            sqlx::query!(
                "UPDATE stash_used SET used = $3 WHERE item_id = $1 AND page_id = $2",
                item,
                page,
                kept
            )
            .execute(&mut *db)
            .await?;
        }
        change_count(db, item, used - kept, 0).await?;
        share_out(db, item).await?;
        more.push(item);
    }
    Ok(more)
}

/// More or fewer of a thing, and so many of them held. Its document says the same.
async fn change_count(
    db: &mut PgConnection,
    item: Uuid,
    by: i32,
    held_by: i32,
) -> sqlx::Result<()> {
    sqlx::query!(
        "UPDATE stash_items SET count = count + $2, held = held + $3, revision = revision + 1, \
             document = jsonb_set(document, '{count}', to_jsonb(count + $2)) WHERE id = $1",
        item,
        by,
        held_by
    )
    .execute(db)
    .await
    .map(|_| ())
}
