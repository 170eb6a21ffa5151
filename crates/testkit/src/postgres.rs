//! A throwaway PostgreSQL on loopback: one server a test process, one database a test.

use anyhow::{Context, Result, ensure};
use std::net::TcpListener;
use std::os::unix::process::CommandExt;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::OnceLock;
use std::sync::atomic::{AtomicU32, Ordering};
use std::time::{Duration, Instant};

/// How long the server may take to start.
const PATIENCE: Duration = Duration::from_secs(30);

/// An empty database of its own for one test.
#[derive(Debug)]
pub struct Database {
    /// Where it is.
    pub url: String,
}

struct Server {
    port: u16,
    bin: PathBuf,
    /// The shell that ends the server when this process, and with it the pipe to its standard input, is gone.
    _keeper: Child,
}

static SERVER: OnceLock<Result<Server, String>> = OnceLock::new();
static COUNT: AtomicU32 = AtomicU32::new(0);

impl Database {
    /// Makes a database; the first call of a process starts the server.
    ///
    /// # Errors
    /// When PostgreSQL's programs are not installed or the server does not start.
    pub fn fresh() -> Result<Database> {
        let server = SERVER.get_or_init(|| start().map_err(|e| format!("{e:#}")));
        let server = server.as_ref().map_err(|e| anyhow::anyhow!("{e}"))?;
        let name = format!("test_{}", COUNT.fetch_add(1, Ordering::Relaxed));
        let made = Command::new(server.bin.join("createdb"))
            .args([
                "-h",
                "127.0.0.1",
                "-p",
                &server.port.to_string(),
                "-U",
                "metrosk",
                &name,
            ])
            .env_clear()
            .output()
            .context("createdb can't be run")?;
        ensure!(
            made.status.success(),
            "createdb: {}",
            String::from_utf8_lossy(&made.stderr)
        );
        Ok(Database {
            url: format!("postgres://metrosk@127.0.0.1:{}/{name}", server.port),
        })
    }
}

fn start() -> Result<Server> {
    let bin = programs()
        .context("PostgreSQL's server programs are not installed (Debian's package postgresql)")?;
    let owner = owner()?;
    let folder = std::env::temp_dir().join(format!(
        "metrosk-test-{}-{}",
        std::process::id(),
        free_port()?
    ));
    std::fs::create_dir(&folder)?;
    if let Some((uid, gid)) = owner {
        std::os::unix::fs::chown(&folder, Some(uid), Some(gid))?;
    }
    let data = folder.join("data");
    let mut initdb = as_owner(&bin.join("initdb"), owner);
    let made = initdb
        .args([
            "--no-sync",
            "--auth=trust",
            "--encoding=UTF8",
            "--locale=C.UTF-8",
            "-U",
            "metrosk",
            "-D",
        ])
        .arg(&data)
        .output()?;
    ensure!(
        made.status.success(),
        "initdb: {}",
        String::from_utf8_lossy(&made.stderr)
    );
    let port = free_port()?;
    let keeper = keep(&bin, &folder, &data, port, owner)?;
    let begun = Instant::now();
    while !is_ready(&bin, port) {
        ensure!(
            begun.elapsed() < PATIENCE,
            "PostgreSQL did not start; its log is {}",
            folder.join("log").display()
        );
        std::thread::sleep(Duration::from_millis(50));
    }
    Ok(Server {
        port,
        bin,
        _keeper: keeper,
    })
}

/// Runs the server under a shell that stops it, and removes its folder, once its standard input is closed.
fn keep(
    bin: &Path,
    folder: &Path,
    data: &Path,
    port: u16,
    owner: Option<(u32, u32)>,
) -> Result<Child> {
    let script = r#"
        "$0/postgres" -D "$1" -p "$2" -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off \
            -c full_page_writes=off -c max_connections=200 >"$3/log" 2>&1 </dev/null &
        server=$!
        cat >/dev/null
        kill -QUIT "$server"; wait "$server"
        rm -rf "$1" "$3/log"
    "#;
    let mut shell = as_owner(Path::new("/bin/sh"), owner);
    let keeper = shell
        .arg("-c")
        .arg(script)
        .arg(bin)
        .arg(data)
        .arg(port.to_string())
        .arg(folder)
        .stdin(Stdio::piped());
    keeper
        .stdout(Stdio::null())
        .stderr(Stdio::null())
        .spawn()
        .context("a shell can't be run")
}

fn is_ready(bin: &Path, port: u16) -> bool {
    let mut asked = Command::new(bin.join("pg_isready"));
    asked
        .args([
            "-q",
            "-h",
            "127.0.0.1",
            "-p",
            &port.to_string(),
            "-U",
            "metrosk",
        ])
        .env_clear();
    asked.status().is_ok_and(|s| s.success())
}

/// The newest of Debian's folders, or what pg_config says.
fn programs() -> Option<PathBuf> {
    let mut versions: Vec<(u32, PathBuf)> = std::fs::read_dir("/usr/lib/postgresql")
        .into_iter()
        .flatten()
        .flatten()
        .filter_map(|e| Some((e.file_name().to_str()?.parse().ok()?, e.path().join("bin"))))
        .filter(|(_, bin)| bin.join("initdb").is_file())
        .collect();
    versions.sort();
    let configured = || {
        let said = Command::new("pg_config").arg("--bindir").output().ok()?;
        let bin = PathBuf::from(String::from_utf8(said.stdout).ok()?.trim());
        bin.join("initdb").is_file().then_some(bin)
    };
    versions.pop().map(|(_, bin)| bin).or_else(configured)
}

/// The server refuses to run as root: then it runs as the user postgres.
fn owner() -> Result<Option<(u32, u32)>> {
    let number = |args: &[&str]| -> Result<u32> {
        let said = Command::new("id").args(args).output()?;
        ensure!(
            said.status.success(),
            "id {args:?}: {}",
            String::from_utf8_lossy(&said.stderr)
        );
        Ok(String::from_utf8(said.stdout)?.trim().parse()?)
    };
    if number(&["-u"])? != 0 {
        return Ok(None);
    }
    Ok(Some((
        number(&["-u", "postgres"])?,
        number(&["-g", "postgres"])?,
    )))
}

fn as_owner(program: &Path, owner: Option<(u32, u32)>) -> Command {
    let mut command = Command::new(program);
    command
        .current_dir("/")
        .env_clear()
        .env("PATH", "/usr/bin:/bin")
        .env("LC_ALL", "C.UTF-8");
    if let Some((uid, gid)) = owner {
        command.uid(uid).gid(gid);
    }
    command
}

/// A port that nothing listens on just now.
pub(crate) fn free_port() -> Result<u16> {
    Ok(TcpListener::bind("127.0.0.1:0")?.local_addr()?.port())
}
