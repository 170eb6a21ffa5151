//! The command, as it is run: documents in, documents out, errors in one line.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use serde_json::{Value, json};
use std::io::Write;
use std::process::{Command, Output, Stdio};

fn metrosk(arguments: &[&str], input: &str) -> Output {
    fed(arguments, input.as_bytes())
}

fn fed(arguments: &[&str], input: &[u8]) -> Output {
    let mut run = Command::new(env!("CARGO_BIN_EXE_metrosk"))
        .args(arguments)
        .env_remove("DATABASE_URL")
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    // A command that refuses its arguments may be gone before it has read anything.
    let _ = run.stdin.take().unwrap().write_all(input);
    run.wait_with_output().unwrap()
}

fn request() -> Value {
    let sketch = metrosk_demo::sketches(metrosk_demo::SEED)[0].to_json();
    json!({"format": "metrosk-fit/1", "unit": "in", "sketch": sketch, "approach": "scale", "snap": 0.125,
        "target": {"page": {"w": 8.5, "h": 11}, "pages": 1, "margin": 0.25}})
}

#[track_caller]
fn refused(output: &Output, says: &str) {
    let error = String::from_utf8(output.stderr.clone()).unwrap();
    assert_eq!(output.status.code(), Some(2), "{error}");
    assert!(output.stdout.is_empty());
    assert_eq!(error.trim_end().lines().count(), 1, "{error}");
    assert!(error.contains(says), "{error}");
}

#[test]
fn a_request_on_standard_input_is_fitted() {
    let output = metrosk(&["fit", "-"], &request().to_string());
    assert!(output.status.success() && output.stderr.is_empty());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["format"], "metrosk-proposals/1");
    assert_eq!(
        answer["proposals"][0]["layout"]["canvas"]["page"],
        json!({"w": 8.5, "h": 11})
    );
}

#[test]
fn a_request_in_a_file_gives_the_same_answer() {
    let path = std::path::Path::new(env!("CARGO_TARGET_TMPDIR")).join("request.metrosk.json");
    std::fs::write(&path, request().to_string()).unwrap();
    let from_file = metrosk(&["fit", path.to_str().unwrap()], "");
    assert_eq!(
        from_file.stdout,
        metrosk(&["fit", "-"], &request().to_string()).stdout
    );
}

#[test]
fn a_conflict_is_an_answer_and_not_an_error() {
    let mut clash = request();
    clash["pins"] = json!([{"block": "p2", "edge": "left", "at": 2}, {"block": "p1", "edge": "right", "at": 6}]);
    let output = metrosk(&["fit", "-"], &clash.to_string());
    assert!(output.status.success());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(
        (&answer["proposals"], &answer["conflict"]["pins"]),
        (&json!([]), &json!([0, 1]))
    );
}

#[test]
fn what_is_not_understood_is_one_line_and_status_two() {
    refused(&metrosk(&["fit", "-"], "not json"), "not JSON");
    refused(
        &metrosk(&["fit", "-"], "{\"format\": \"metrosk-fit/2\"}"),
        "metrosk-fit/1",
    );
    refused(
        &metrosk(&["fit", "/nowhere/at/all.json"], ""),
        "can't be opened",
    );
    refused(&metrosk(&["fit", "/"], ""), "/");
    let mut broken = request();
    broken["sketch"]["blocks"][2]["box"]["w"] = json!("wide\nwide");
    refused(
        &metrosk(&["fit", "-"], &broken.to_string()),
        "sketch.blocks[2].box.w",
    );
    let mut other = request();
    other["approach"] = json!("run-on");
    refused(&metrosk(&["fit", "-"], &other.to_string()), "run-on");
}

#[test]
fn serving_to_others_is_refused() {
    let output = metrosk(
        &[
            "serve",
            "--listen",
            "0.0.0.0:0",
            "--database-url",
            "postgres://nobody@127.0.0.1:1/x",
        ],
        "",
    );
    refused(&output, "not an address of this machine alone");
    let output = metrosk(
        &[
            "serve",
            "--listen",
            "127.0.0.1:0",
            "--database-url",
            "postgres://nobody@127.0.0.1:1/x",
        ],
        "",
    );
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("DATABASE_URL"));
}

#[test]
fn help_tells_a_newcomer_what_to_do() {
    let help = String::from_utf8(metrosk(&["--help"], "").stdout).unwrap();
    for word in ["fit", "serve", "sketch"] {
        assert!(help.contains(word), "{help}");
    }
    let help = String::from_utf8(metrosk(&["fit", "--help"], "").stdout).unwrap();
    assert!(
        help.contains("standard input") && help.contains("exit status 2"),
        "{help}"
    );
}

#[test]
fn a_server_is_not_opened_to_the_world_without_tls() {
    let serve = |more: &[&str]| {
        metrosk(
            &[
                &["serve", "--database-url", "postgres://127.0.0.1:1/none"],
                more,
            ]
            .concat(),
            "",
        )
    };
    refused(
        &serve(&["--listen", "0.0.0.0:4870"]),
        "not an address of this machine alone",
    );
    refused(
        &serve(&[
            "--listen",
            "0.0.0.0:4870",
            "--public-url",
            "http://paper.example",
        ]),
        "not an address of this machine alone",
    );
    refused(
        &serve(&["--public-url", "paper.example"]),
        "allowed is https://",
    );
    refused(
        &serve(&["--public-url", "https://paper.example/metrosk"]),
        "nothing after it",
    );
}

#[test]
fn a_backup_that_cant_be_made_or_restored_is_one_line() {
    let database = metrosk_testkit::Database::fresh().unwrap();
    let file = std::path::Path::new(env!("CARGO_TARGET_TMPDIR")).join("command-backup.zip");
    let _ = std::fs::remove_file(&file);
    let name = file.to_str().unwrap();
    let run = |what: &str, database: &str| metrosk(&[what, name, "--database-url", database], "");
    refused(&run("backup", &database.url), "holds nothing of Metrosk");
    assert!(!file.exists(), "no empty archive is left behind");
    std::fs::write(&file, "no archive").unwrap();
    refused(&run("restore", &database.url), "is no archive");
    refused(
        &run("restore", "postgres://127.0.0.1:1/none"),
        "the database does not answer",
    );
}

#[test]
fn a_picture_is_read_and_printed_as_a_sketch() {
    let drawn = &metrosk_demo::sketches(metrosk_demo::SEED)[0];
    let scan = metrosk_vision::jpeg(
        &metrosk_demo::picture(drawn, metrosk_demo::Style::Clean, 1),
        90,
    )
    .unwrap();
    let output = fed(
        &[
            "read", "-", "--page", "12x12", "--pages", "1", "--unit", "in",
        ],
        &scan,
    );
    assert!(
        output.status.success() && output.stderr.is_empty(),
        "{}",
        String::from_utf8_lossy(&output.stderr)
    );
    let sketch: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(
        (&sketch["format"], &sketch["canvas"]["pages"]),
        (&json!("metrosk-sketch/1"), &json!(1))
    );
    assert!(
        sketch["blocks"]
            .as_array()
            .unwrap()
            .iter()
            .all(|b| b["sure"].is_number())
    );
    let millimetres = fed(&["read", "-", "--page", "305x305", "--unit", "mm"], &scan);
    let sketch: Value = serde_json::from_slice(&millimetres.stdout).unwrap();
    assert_eq!(
        (&sketch["unit"], &sketch["canvas"]["page"]["w"]),
        (&json!("mm"), &json!(305))
    );
}

#[test]
fn a_picture_that_cant_be_used_is_one_line() {
    refused(
        &metrosk(&["read", "-"], "not a picture"),
        "PNG, JPEG and WebP",
    );
    refused(
        &metrosk(&["read", "no-such-file.png"], ""),
        "no-such-file.png",
    );
    refused(&metrosk(&["read", "-", "--page", "12"], ""), "--page");
    refused(&metrosk(&["read", "-", "--page", "0x12"], ""), "--page");
    refused(&metrosk(&["read", "-", "--pages", "3"], ""), "--pages");
    refused(&metrosk(&["read", "-", "--unit", "ell"], ""), "--unit");
}

#[test]
fn papers_are_dealt_out_the_same_for_the_same_seed() {
    let places: Vec<Value> = (0..12)
        .map(|n| json!({"id": format!("g1/{}/{}", n / 4 + 1, n % 4 + 1), "x": n % 4, "y": n / 4}))
        .collect();
    let deal = json!({"format": "metrosk-deal/1", "unit": "in", "seed": 3, "reach": 1.2, "places": places,
        "papers": [{"id": "coral", "qty": 6}, {"id": "teal", "qty": 9}], "locks": {"g1/1/1": "teal"}});
    let output = metrosk(&["deal", "-"], &deal.to_string());
    let dealt: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(
        (&dealt["format"], &dealt["short"], &dealt["met"]),
        (&json!("metrosk-dealt/1"), &json!(0), &json!([]))
    );
    assert_eq!(dealt["places"]["g1/1/1"], "teal");
    assert_eq!(
        metrosk(&["deal", "-"], &deal.to_string()).stdout,
        output.stdout
    );
    let mut wrong = deal;
    wrong["locks"] = json!({"g9": "teal"});
    refused(&metrosk(&["deal", "-"], &wrong.to_string()), "g9");
}

#[test]
fn pieces_are_told_with_what_shows_and_what_is_cut() {
    let block = |id: &str, kind: &str, y: f64, h: f64| json!({"id": id, "from": [id], "kind": kind, "page": 0, "box": {"x": 0, "y": y, "w": 12, "h": h}});
    let piecing = json!({"format": "metrosk-piecing/1", "unit": "in", "papers": {"a1": "dots"}, "layout": {
        "format": "metrosk-layout/1", "unit": "in", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
        "blocks": [block("a1", "paper", 0.0, 6.0), block("s1", "strip", 6.0, 2.0)]}});
    let output = metrosk(&["pieces", "-"], &piecing.to_string());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["format"], "metrosk-pieces/1");
    assert_eq!(answer["pieces"][0]["shows"]["box"]["h"].as_f64(), Some(6.0));
    assert_eq!(answer["pieces"][0]["cut"]["h"].as_f64(), Some(6.5));
    let mut wrong = piecing;
    wrong["papers"] = json!({"t1": "dots"});
    refused(&metrosk(&["pieces", "-"], &wrong.to_string()), "papers.t1");
}

#[test]
fn cuts_are_planned_the_same_each_time() {
    let job = json!({"format": "metrosk-cutjob/1", "unit": "in", "trimmer": {"reach": 12, "finest": 0.0625},
        "stock": [{"id": "dots", "paper": "dots", "w": 12, "h": 12, "spoiled": [{"x": 0, "y": 11.5, "w": 12, "h": 0.5}]}],
        "pieces": [{"id": "m1", "paper": "dots", "w": 4.25, "h": 6.25, "qty": 2, "may_turn": false}]});
    let output = metrosk(&["cut", "-"], &job.to_string());
    let plan: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(
        (&plan["format"], &plan["short"]),
        (&json!("metrosk-cutplan/1"), &json!([]))
    );
    assert_eq!(
        plan["sheets"][0]["pieces"].as_array().map(Vec::len),
        Some(2)
    );
    assert_eq!(
        metrosk(&["cut", "-"], &job.to_string()).stdout,
        output.stdout
    );
    let mut wrong = job;
    wrong["pieces"][0]["w"] = json!(0);
    refused(&metrosk(&["cut", "-"], &wrong.to_string()), "pieces[0].w");
}

#[test]
fn a_title_is_set_in_the_letters_that_are_left() {
    let bounds = |least: f64| json!({"least": least, "best": least * 2.0, "most": least * 3.0});
    let mut request = json!({"format": "metrosk-words/1", "unit": "in", "text": "Tot", "space": {"w": 4, "h": 2}, "lines": "any", "align": "left",
        "sets": [{"id": "cork", "case": "upper", "letters": {"T": {"w": 0.5, "h": 1, "qty": 2}, "O": {"w": 0.75, "h": 1, "qty": 1}}}],
        "gap": bounds(0.0625), "word_gap": bounds(0.25), "line_gap": bounds(0.125)});
    let output = metrosk(&["words", "-"], &request.to_string());
    assert!(output.status.success());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["format"], "metrosk-worded/1");
    assert_eq!(
        answer["proposals"][0]["leaves"]["cork"],
        json!({"O": 0, "T": 0})
    );
    request["gap"]["best"] = json!(9);
    refused(&metrosk(&["words", "-"], &request.to_string()), "gap");
}

#[test]
fn a_layout_is_checked_before_the_glue() {
    let block = |id: &str, x: f64, w: f64| json!({"id": id, "from": [id], "kind": "photo", "page": 0, "box": {"x": x, "y": 1, "w": w, "h": 3}});
    let mut request = json!({"format": "metrosk-check/1", "unit": "in", "layout": {"format": "metrosk-layout/1", "unit": "in",
        "canvas": {"page": {"w": 12, "h": 12}, "pages": 1}, "blocks": [block("p1", 1.0, 4.0), block("p2", 6.0, 4.0)]}});
    request["layout"]["blocks"][1]["box"]["y"] = json!(1.125);
    let output = metrosk(&["check", "-"], &request.to_string());
    assert!(output.status.success());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["format"], "metrosk-checked/1");
    let edges: Vec<&str> = answer["findings"]
        .as_array()
        .unwrap()
        .iter()
        .filter_map(|f| f["edge"].as_str())
        .collect();
    assert_eq!(edges, ["top", "bottom"]);
    request["near"] = json!({"from": "a hair"});
    refused(&metrosk(&["check", "-"], &request.to_string()), "near.from");
}
