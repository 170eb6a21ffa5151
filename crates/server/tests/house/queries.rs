//! What the builds check queries against is what the database says today.

use crate::support::Server;
use metrosk_server::Settings;
use serde_json::Value;
use sqlx::{
    AssertSqlSafe, Column, Connection, Either, Executor, PgConnection, SqlSafeStr, TypeInfo,
};
use std::path::Path;

#[tokio::test]
async fn the_queries_that_builds_check_against_are_those_of_todays_tables() {
    let server = Server::empty(Settings::default()).await;
    let mut db = PgConnection::connect(&server.database.url).await.unwrap();
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../.sqlx");
    let mut known = 0;
    for file in std::fs::read_dir(folder).unwrap() {
        let path = file.unwrap().path();
        let kept: Value = serde_json::from_slice(&std::fs::read(&path).unwrap()).unwrap();
        let query = kept["query"].as_str().unwrap().to_owned();
        let today = db
            .describe(AssertSqlSafe(query.clone()).into_sql_str())
            .await
            .unwrap_or_else(|e| panic!("{query}\n{e}\nscript/queries makes .sqlx anew"));
        let columns: Vec<(&str, String)> = today
            .columns()
            .iter()
            .map(|c| (c.name(), type_name(c.type_info().name())))
            .collect();
        let kept_columns: Vec<(&str, String)> = kept["describe"]["columns"]
            .as_array()
            .unwrap()
            .iter()
            .map(|c| {
                let kind = c["type_info"].as_str().unwrap();
                (c["name"].as_str().unwrap(), type_name(kind))
            })
            .collect();
        assert_eq!(columns, kept_columns, "{query}");
        let never_null = |i: usize| kept["describe"]["nullable"][i] == false;
        for i in (0..columns.len()).filter(|i| never_null(*i)) {
            assert_eq!(today.nullable(i), Some(false), "{query}: {}", columns[i].0);
        }
        let Some(Either::Left(parameters)) = today.parameters() else {
            panic!("{query}: parameters have types")
        };
        let parameters: Vec<String> = parameters.iter().map(|p| type_name(p.name())).collect();
        let kept_parameters: Vec<String> = kept["describe"]["parameters"]["Left"]
            .as_array()
            .unwrap()
            .iter()
            .map(|p| type_name(p.as_str().unwrap()))
            .collect();
        assert_eq!(parameters, kept_parameters, "{query}");
        known += 1;
    }
    assert!(known > 100, "{known} queries are known");
}

/// A type's name, however it is spelled.
fn type_name(name: &str) -> String {
    name.to_lowercase().replace("[]", "array")
}
