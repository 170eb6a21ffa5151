//! The house over a real PostgreSQL, through a client: one binary, so that one database server serves all of it.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

mod api;
mod backup;
mod bounds;
mod building;
mod calls;
mod clusters;
mod cut;
mod drawer;
mod earlier;
mod files;
mod fits;
mod gallery;
mod history;
mod hops;
mod jobs;
mod log;
mod machine;
mod nothing_lost;
mod people;
mod photos;
mod pictures;
mod printing;
mod queries;
mod safety;
mod season;
mod stash;
mod stations;
mod support;
mod teams_apart;
mod words;
