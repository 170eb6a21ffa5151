//! The stash as a table of comma-separated values: taken out, and brought in again.

use super::routes::{columns, view};
use super::store::{self as stash, Search};
use super::views::BroughtInView;
use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::features::events::store::{self as events, NewEvent};
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Raw, download};
use crate::http::idempotency::{Answer, Once, begin};
use crate::state::App;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Response};
use metrosk_core::document::{Finding, Invalid};
use metrosk_core::stash::{Item, Row, Table, from_table, to_table};
use std::collections::{BTreeMap, BTreeSet};
use uuid::Uuid;

/// A whole stash.
const ALL: i64 = 20_000;

/// All that is in the stash, as a table.
#[utoipa::path(
    get, operation_id = "export_stash", path = "/api/stash/table", tag = "stash",
    responses((status = 200, content_type = "text/csv", body = String), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn export(State(app): State<App>, member: Member) -> Result<Response, Failure> {
    let who = (member.team(), member.person.id);
    let rows = stash::list(&app.pool, who, &Search::default(), (ALL, 0)).await?;
    let work = move |_: &metrosk_core::Cancel| {
        let read = rows.into_iter().map(|row| {
            let id = row.id.to_string();
            Ok((id, Item::from_json(&view(row).item)?))
        });
        let things: Vec<(String, Item)> = read.collect::<Result<_, Invalid>>()?;
        to_table(&things).map_err(|e| Failure::Internal(e.to_string()))
    };
    let text = app
        .compute
        .run(member.team(), Work::Drawing, work)
        .await??;
    let headers: HeaderMap = download("text/csv; charset=utf-8", "stash.csv");
    Ok((headers, text).into_response())
}

/// Bytes as text: UTF-8, or what spreadsheets write otherwise.
fn as_text(bytes: &[u8]) -> String {
    let marked = encoding_rs::Encoding::for_bom(bytes);
    if let Some((encoding, _)) = marked {
        return encoding.decode(bytes).0.into_owned();
    }
    std::str::from_utf8(bytes).map_or_else(
        |_| encoding_rs::WINDOWS_1252.decode(bytes).0.into_owned(),
        str::to_owned,
    )
}

/// Brings a table in: every row of it, or none. A row that names a thing of this stash writes that anew, any other row puts one away.
#[utoipa::path(
    post, operation_id = "import_stash", path = "/api/stash/table", tag = "stash",
    request_body(content = String, content_type = "text/csv"), params(("Idempotency-Key" = Option<String>, Header)),
    responses(
        (status = 200, body = BroughtInView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn import(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Raw(bytes): Raw,
) -> Result<Answer, Failure> {
    let read = move |_: &metrosk_core::Cancel| from_table(&as_text(&bytes));
    let table: Table = app.compute.run(maker.team(), Work::Drawing, read).await??;
    let mut write = begin!(once, &app, &maker, "bring the stash in");
    let named: Vec<Uuid> = table.rows.iter().filter_map(named_by).collect();
    let known = stash::held_of(write.db(), maker.team(), &named).await?;
    must_hold(&table.rows, &known)?;
    let mut taken = BTreeSet::new();
    let mut rows = Vec::with_capacity(table.rows.len());
    for row in &table.rows {
        let id = named_by(row).filter(|id| known.contains_key(id) && taken.insert(*id));
        rows.push((
            id.unwrap_or_else(Uuid::new_v4),
            row.item.to_json(),
            row.item.words(),
        ));
    }
    let items = table.rows.iter().zip(&rows);
    let columns: Vec<(Uuid, stash::NewItem)> = items
        .map(|(row, (id, document, words))| (*id, columns(&row.item, document, words, None)))
        .collect();
    stash::put_all(write.db(), maker.team(), &columns, maker.name()).await?;
    for id in &taken {
        stash::share_out(write.db(), *id).await?;
    }
    if let Some((first, _)) = columns.first() {
        let changed = NewEvent::of(events::STASH, *first, 0, maker.name());
        events::tell(write.db(), maker.team(), changed).await?;
    }
    let done = BroughtInView {
        new: columns.len() - taken.len(),
        changed: taken.len(),
        ignored: table.ignored,
    };
    write.finish(StatusCode::OK, &done).await
}

fn named_by(row: &Row) -> Option<Uuid> {
    row.id.as_deref().and_then(|id| Uuid::parse_str(id).ok())
}

/// There can't be fewer of a thing than pages hold.
fn must_hold(rows: &[Row], held: &BTreeMap<Uuid, i32>) -> Result<(), Invalid> {
    let findings: Vec<Finding> = rows
        .iter()
        .filter_map(|row| {
            let held = *held.get(&named_by(row)?)?;
            (i64::from(row.item.count) < i64::from(held)).then(|| Finding {
                path: format!("{}, count", row.item.name),
                found: row.item.count.to_string(),
                allowed: format!("{held} or more: so many are held for pages"),
            })
        })
        .collect();
    if findings.is_empty() {
        Ok(())
    } else {
        Err(Invalid { findings })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn text_in_other_encodings_is_read() {
        assert_eq!(as_text("name\nTüpfel".as_bytes()), "name\nTüpfel");
        assert_eq!(as_text(b"name\nT\xfcpfel"), "name\nTüpfel");
        assert_eq!(as_text(b"\xff\xfen\0a\0"), "na");
    }
}
