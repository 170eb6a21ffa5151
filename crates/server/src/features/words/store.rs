//! Which letters the plans of a team's pages spend. Plans are the one record of it, so that a change or an undo of a plan frees letters, or
//! takes them again, in the same transaction.

use sqlx::PgExecutor;
use sqlx::types::Json;
use std::collections::BTreeMap;
use uuid::Uuid;

/// What a page's title spends, by letter set.
#[derive(Debug)]
pub(crate) struct SpentRow {
    pub(crate) name: String,
    pub(crate) uses: Json<BTreeMap<String, BTreeMap<char, u32>>>,
}

/// What the titles of a team's other pages spend; pages that were put away spend nothing.
pub(crate) async fn spent_elsewhere(
    db: impl PgExecutor<'_>,
    team: Uuid,
    page: Option<Uuid>,
) -> sqlx::Result<Vec<SpentRow>> {
    sqlx::query_as!(
        SpentRow,
        "SELECT name, plan #> '{words,title,uses}' AS \"uses!: Json<BTreeMap<String, BTreeMap<char, u32>>>\" FROM pages \
         WHERE team_id = $1 AND id IS DISTINCT FROM $2 AND archived_at IS NULL AND jsonb_typeof(plan #> '{words,title,uses}') = 'object' \
         ORDER BY changed_at DESC",
        team,
        page
    )
    .fetch_all(db)
    .await
}
