//! Backup and restore through the program, compared file by file and row by row.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use metrosk_testkit::Database;
use std::collections::BTreeMap;
use std::io::{BufRead, BufReader, Read, Write};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Output, Stdio};

/// A house: a database, and a folder of pictures.
struct House {
    database: Database,
    pictures: PathBuf,
}

/// `metrosk serve`, which ends when dropped.
struct Served(Child, String);

impl Drop for Served {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

impl House {
    fn new(name: &str) -> House {
        let pictures = Path::new(env!("CARGO_TARGET_TMPDIR"))
            .join(format!("archive-{name}-{}", std::process::id()));
        let _ = std::fs::remove_dir_all(&pictures);
        House {
            database: Database::fresh().unwrap(),
            pictures,
        }
    }

    fn metrosk(&self, arguments: &[&str]) -> Command {
        let mut command = Command::new(env!("CARGO_BIN_EXE_metrosk"));
        command
            .args(arguments)
            .env("DATABASE_URL", &self.database.url)
            .env("METROSK_PICTURES", &self.pictures)
            .env("METROSK_GRACE", "1")
            .env("METROSK_DEMO_PHOTOS", "0.15")
            .env("RUST_LOG", "off");
        command
    }

    fn run(&self, arguments: &[&str]) -> Output {
        self.metrosk(arguments).output().unwrap()
    }

    /// Serves until it says where, with the demo or without.
    fn serve(&self, demo: bool) -> Served {
        let web = Path::new(env!("CARGO_TARGET_TMPDIR")).join("archive-web");
        std::fs::create_dir_all(&web).unwrap();
        std::fs::write(web.join("index.html"), "<p>Metrosk</p>").unwrap();
        let mut command = self.metrosk(&[
            "serve",
            "--listen",
            "127.0.0.1:0",
            "--web",
            web.to_str().unwrap(),
        ]);
        if demo {
            command.arg("--demo");
        }
        let mut process = command.stdout(Stdio::piped()).spawn().unwrap();
        let mut line = String::new();
        BufReader::new(process.stdout.take().unwrap())
            .read_line(&mut line)
            .unwrap();
        let address = line
            .trim()
            .strip_prefix("Metrosk is at http://")
            .unwrap()
            .to_owned();
        Served(process, address)
    }

    /// Every file of the pictures' folder.
    fn files(&self) -> BTreeMap<String, Vec<u8>> {
        fn walk(folder: &Path, top: &Path, found: &mut BTreeMap<String, Vec<u8>>) {
            for entry in std::fs::read_dir(folder).into_iter().flatten() {
                let path = entry.unwrap().path();
                if path.is_dir() {
                    walk(&path, top, found);
                } else {
                    found.insert(
                        path.strip_prefix(top)
                            .unwrap()
                            .to_string_lossy()
                            .into_owned(),
                        std::fs::read(&path).unwrap(),
                    );
                }
            }
        }
        let mut found = BTreeMap::new();
        walk(&self.pictures, &self.pictures, &mut found);
        found
    }
}

impl Drop for House {
    fn drop(&mut self) {
        let _ = std::fs::remove_dir_all(&self.pictures);
    }
}

fn said(output: &Output) -> String {
    format!(
        "{}{}",
        String::from_utf8_lossy(&output.stdout),
        String::from_utf8_lossy(&output.stderr)
    )
}

fn entry(archive: &Path, name: &str) -> Vec<u8> {
    let mut zip = zip::ZipArchive::new(std::fs::File::open(archive).unwrap()).unwrap();
    let mut bytes = Vec::new();
    zip.by_name(name).unwrap().read_to_end(&mut bytes).unwrap();
    bytes
}

#[test]
fn a_backup_holds_every_picture_and_is_restored_onto_another_folder_and_database() {
    let house = House::new("first");
    drop(house.serve(true));
    let archive = house.pictures.with_extension("zip");
    let file = archive.to_str().unwrap();
    let _ = std::fs::remove_file(&archive);
    let done = house.run(&["backup", file]);
    assert!(done.status.success(), "{}", said(&done));
    assert!(
        said(&done).contains("89 pictures") && said(&done).contains("255 files"),
        "{}",
        said(&done)
    );
    let manifest: serde_json::Value =
        serde_json::from_slice(&entry(&archive, "metrosk-backup.json")).unwrap();
    let before = house.files();
    assert_eq!(manifest["files"].as_object().unwrap().len(), before.len());
    for (name, bytes) in &before {
        assert_eq!(&entry(&archive, name), bytes, "{name} is in the archive");
        assert_eq!(
            manifest["files"][name]["bytes"].as_u64(),
            Some(bytes.len() as u64)
        );
    }
    let twice = house.run(&["backup", file]);
    assert!(
        !twice.status.success() && said(&twice).contains("can't be written"),
        "a file that exists is left alone"
    );

    // Onto a bare database, and onto one that was started and only holds the first lead's link.
    for started in [false, true] {
        let other = House::new(if started { "started" } else { "bare" });
        if started {
            drop(other.serve(false));
        }
        let done = other.run(&["restore", file]);
        assert!(done.status.success(), "{}", said(&done));
        assert_eq!(other.files(), before, "file by file the same");
        let again = other.pictures.with_extension("again.zip");
        let _ = std::fs::remove_file(&again);
        let done = other.run(&["backup", again.to_str().unwrap()]);
        assert!(done.status.success(), "{}", said(&done));
        for table in manifest["tables"].as_object().unwrap().keys() {
            let name = format!("tables/{table}.jsonl");
            assert_eq!(
                entry(&again, &name),
                entry(&archive, &name),
                "{table} row by row the same"
            );
        }
        let refused = other.run(&["restore", file]);
        assert!(
            !refused.status.success() && said(&refused).contains("not empty"),
            "{}",
            said(&refused)
        );
        std::fs::remove_file(&again).unwrap();
    }

    // A picture that is missing is named, and no half archive is left.
    let (gone, _) = before
        .iter()
        .find(|(name, _)| name.contains("/view-"))
        .unwrap();
    std::fs::remove_file(house.pictures.join(gone)).unwrap();
    let half = house.pictures.with_extension("half.zip");
    let done = house.run(&["backup", half.to_str().unwrap()]);
    assert!(
        !done.status.success() && said(&done).contains(gone.as_str()),
        "{}",
        said(&done)
    );
    assert!(!half.exists());

    // A place of pictures that is not empty is left as it is.
    let full = House::new("full");
    let lies_there = full.pictures.join(gone);
    std::fs::create_dir_all(lies_there.parent().unwrap()).unwrap();
    std::fs::write(&lies_there, "hers").unwrap();
    let done = full.run(&["restore", file]);
    assert!(
        !done.status.success() && said(&done).contains("is not empty"),
        "{}",
        said(&done)
    );
    assert_eq!(full.files().values().collect::<Vec<_>>(), [b"hers"]);

    // So is one that was changed on the way; nothing of it stays.
    let damaged = house.pictures.with_extension("damaged.zip");
    rewrite(&archive, &damaged, gone);
    let other = House::new("damaged");
    let done = other.run(&["restore", damaged.to_str().unwrap()]);
    assert!(
        !done.status.success() && said(&done).contains("is not what was written"),
        "{}",
        said(&done)
    );
    assert!(other.files().is_empty());
    let done = other.run(&["restore", file]);
    assert!(
        done.status.success(),
        "and the whole archive still can be: {}",
        said(&done)
    );
    for file in [archive, damaged] {
        std::fs::remove_file(file).unwrap();
    }
}

/// The archive with one file changed.
fn rewrite(from: &Path, to: &Path, changed: &str) {
    let mut zip = zip::ZipArchive::new(std::fs::File::open(from).unwrap()).unwrap();
    let mut out = zip::ZipWriter::new(std::fs::File::create(to).unwrap());
    for n in 0..zip.len() {
        let mut file = zip.by_index(n).unwrap();
        let name = file.name().unwrap().into_owned();
        out.start_file(&name, zip::write::SimpleFileOptions::default())
            .unwrap();
        let mut bytes = Vec::new();
        file.read_to_end(&mut bytes).unwrap();
        if name == changed {
            bytes[0] ^= 1;
        }
        out.write_all(&bytes).unwrap();
    }
    out.finish().unwrap();
}

#[test]
fn a_backup_never_migrates_and_says_what_it_found() {
    let house = House::new("empty");
    let archive = house.pictures.with_extension("zip");
    let done = house.run(&["backup", archive.to_str().unwrap()]);
    assert!(
        !done.status.success() && said(&done).contains("holds nothing of Metrosk"),
        "{}",
        said(&done)
    );
    assert!(!archive.exists());
    // It made no tables on the way: a second time it says the same.
    assert!(
        said(&house.run(&["backup", archive.to_str().unwrap()]))
            .contains("holds nothing of Metrosk")
    );
}

#[test]
fn whoever_keeps_the_server_makes_a_link_for_a_new_password() {
    let house = House::new("password");
    drop(house.serve(true));
    let done = house.run(&["password-link", "teal"]);
    assert!(
        done.status.success() && said(&done).contains("/password/"),
        "{}",
        said(&done)
    );
    let nobody = house.run(&["password-link", "nobody"]);
    assert_eq!(
        (nobody.status.code(), said(&nobody).lines().count()),
        (Some(2), 1)
    );
}

#[test]
fn requests_are_logged_without_what_they_are_about() {
    let house = House::new("log");
    let web = Path::new(env!("CARGO_TARGET_TMPDIR")).join("archive-web");
    std::fs::create_dir_all(&web).unwrap();
    std::fs::write(web.join("index.html"), "<p>Metrosk</p>").unwrap();
    let mut command = house.metrosk(&[
        "serve",
        "--listen",
        "127.0.0.1:0",
        "--web",
        web.to_str().unwrap(),
    ]);
    let mut process = command
        .env_remove("RUST_LOG")
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let mut line = String::new();
    BufReader::new(process.stdout.take().unwrap())
        .read_line(&mut line)
        .unwrap();
    let address = line.trim().strip_prefix("Metrosk is at http://").unwrap();
    let mut stream = std::net::TcpStream::connect(address).unwrap();
    stream
        .write_all(b"GET /api/me?secret=1 HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n")
        .unwrap();
    stream.read_to_end(&mut Vec::new()).unwrap();
    process.kill().unwrap();
    let told = String::from_utf8(process.wait_with_output().unwrap().stderr).unwrap();
    let logged = told
        .lines()
        .find(|l| l.contains("/api/me"))
        .unwrap_or_else(|| panic!("no request was logged: {told}"));
    assert!(logged.contains("200") && logged.contains("GET"), "{logged}");
    assert!(!told.contains("secret"), "{told}");
}

#[test]
fn a_stop_ends_while_a_stream_is_open() {
    let house = House::new("stop");
    let mut served = house.serve(true);
    let mut stream = std::net::TcpStream::connect(&served.1).unwrap();
    // Half a request keeps its connection open for as long as the server lets it.
    stream
        .write_all(b"POST /api/session HTTP/1.1\r\nhost: x\r\ncontent-length: 1000\r\n\r\n{")
        .unwrap();
    let id = served.0.id().to_string();
    assert!(
        Command::new("kill")
            .args(["-TERM", &id])
            .status()
            .unwrap()
            .success()
    );
    assert!(
        served.0.wait().unwrap().success(),
        "it ends by itself, within its grace"
    );
}
