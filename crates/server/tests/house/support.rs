//! A server with the demo, and who asks it.

use metrosk_server::{App, Pictures, Settings, demo, router};
use metrosk_testkit::Database;
use reqwest::{Client, Method, RequestBuilder, StatusCode};
use serde_json::{Value, json};
use std::net::SocketAddr;

/// The whole router on a free port.
pub(crate) struct Server {
    pub(crate) address: String,
    pub(crate) app: App,
    pub(crate) database: Database,
    pictures: Pictures,
}

impl Drop for Server {
    fn drop(&mut self) {
        if let Pictures::Folder(folder) = &self.pictures {
            let _ = std::fs::remove_dir_all(folder);
        }
    }
}

/// Somebody with her own cookies.
pub(crate) struct Guest {
    pub(crate) client: Client,
    pub(crate) address: String,
}

impl Server {
    /// With the demo loaded.
    pub(crate) async fn start() -> Server {
        Server::start_with(Settings::default()).await
    }

    /// With the demo loaded, and pictures where other servers find them too.
    pub(crate) async fn sharing_pictures() -> Server {
        let folder = std::path::Path::new(env!("CARGO_TARGET_TMPDIR"))
            .join(format!("pictures-{}", uuid::Uuid::new_v4()));
        Server::start_with(Settings {
            pictures: Pictures::Folder(folder),
            ..Settings::default()
        })
        .await
    }

    /// Where its pictures lie.
    pub(crate) fn picture_folder(&self) -> &std::path::Path {
        match &self.pictures {
            Pictures::Folder(folder) => folder,
            other => panic!("{other:?} is no folder"),
        }
    }

    /// With the demo loaded, run as is said.
    pub(crate) async fn start_with(settings: Settings) -> Server {
        let server = Server::empty(Settings {
            demo: true,
            ..settings
        })
        .await;
        assert!(demo::load_once(&server.app).await.unwrap());
        assert!(
            !demo::load_once(&server.app).await.unwrap(),
            "the demo is loaded once"
        );
        server
    }

    /// With nobody in it.
    pub(crate) async fn empty(settings: Settings) -> Server {
        let database = Database::fresh().unwrap();
        let pictures = settings.pictures.clone();
        let app = App::connect(&database.url, settings).await.unwrap();
        let mut server = Server::of(app, database).await;
        server.pictures = pictures;
        server
    }

    /// What somebody has connected already.
    pub(crate) async fn of(app: App, database: Database) -> Server {
        Server {
            address: serve(app.clone()).await,
            app,
            database,
            pictures: Pictures::Memory,
        }
    }

    /// Another server's connection to the same database and pictures.
    pub(crate) async fn other(&self) -> App {
        let settings = Settings {
            pictures: self.pictures.clone(),
            ..Settings::default()
        };
        App::connect(&self.database.url, settings).await.unwrap()
    }

    /// The address of another server on the same database.
    pub(crate) async fn twin(&self) -> String {
        serve(self.other().await).await
    }

    /// Somebody who is not signed in.
    pub(crate) fn stranger(&self) -> Guest {
        Guest {
            client: Client::builder().cookie_store(true).build().unwrap(),
            address: self.address.clone(),
        }
    }

    /// Somebody of the demo.
    pub(crate) async fn as_person(&self, account: &str) -> Guest {
        let guest = self.stranger();
        let (status, me) = guest
            .post(
                "/api/session",
                &json!({"account": account, "password": metrosk_demo::PASSWORD}),
            )
            .await;
        assert_eq!(status, StatusCode::OK, "{me}");
        guest
    }

    /// The club's lead.
    pub(crate) async fn as_wren(&self) -> Guest {
        self.as_person("wren").await
    }
}

impl Guest {
    pub(crate) fn request(&self, method: Method, path: &str) -> RequestBuilder {
        self.client
            .request(method, format!("{}{path}", self.address))
    }

    pub(crate) async fn get(&self, path: &str) -> (StatusCode, Value) {
        answer(self.request(Method::GET, path)).await
    }

    pub(crate) async fn post(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.request(Method::POST, path).json(body)).await
    }

    pub(crate) async fn put(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.request(Method::PUT, path).json(body)).await
    }

    pub(crate) async fn patch(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.request(Method::PATCH, path).json(body)).await
    }

    pub(crate) async fn delete(&self, path: &str) -> (StatusCode, Value) {
        answer(self.request(Method::DELETE, path)).await
    }

    /// Changes a sketch, starting from its newest revision.
    pub(crate) async fn change_sketch(&self, path: &str, change: &Value) -> (StatusCode, Value) {
        let mut change = change.clone();
        change["revision"] = self.get(path).await.1["revision"].clone();
        self.put(path, &change).await
    }

    /// Puts another document in place of a sketch's, starting from its newest revision.
    pub(crate) async fn write_sketch(&self, path: &str, document: &Value) -> (StatusCode, Value) {
        let revision = self.get(path).await.1["revision"].clone();
        self.put(&format!("{path}/document?revision={revision}"), document)
            .await
    }

    /// Changes a page's name, dates and the like, starting from their newest revision.
    pub(crate) async fn change_page(&self, path: &str, change: &Value) -> (StatusCode, Value) {
        let mut change = change.clone();
        change["details_revision"] = self.get(path).await.1["details_revision"].clone();
        self.put(path, &change).await
    }

    /// The page of a name on the team's table.
    pub(crate) async fn page(&self, name: &str) -> Value {
        let pages = self.get("/api/pages").await.1;
        let card = pages
            .as_array()
            .unwrap()
            .iter()
            .find(|p| p["name"] == name)
            .unwrap();
        self.get(&format!("/api/pages/{}", id(card))).await.1
    }

    /// The page that most tests use: a tide line spread with six photos.
    pub(crate) async fn kites(&self) -> Value {
        self.page("Kites over the flats").await
    }
}

/// Serves the whole router on a free port: its address.
pub(crate) async fn serve(app: App) -> String {
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = format!("http://{}", listener.local_addr().unwrap());
    metrosk_server::work(&app);
    let service = router(app).into_make_service_with_connect_info::<SocketAddr>();
    tokio::spawn(async move { axum::serve(listener, service).await });
    address
}

/// The events of a stream, one after another.
pub(crate) struct Events {
    response: reqwest::Response,
    text: String,
}

impl Events {
    /// Listens from now on, or from after an event.
    pub(crate) async fn of(guest: &Guest, after: Option<i64>) -> Events {
        let path = match after {
            Some(after) => format!("/api/events?after={after}"),
            None => "/api/events".to_owned(),
        };
        let response = guest.request(Method::GET, &path).send().await.unwrap();
        assert_eq!(response.status(), StatusCode::OK);
        assert_eq!(response.headers()["content-type"], "text/event-stream");
        let mut events = Events {
            response,
            text: String::new(),
        };
        // From the first word on nothing is missed.
        events.until(|name, _| name == "listening").await;
        events
    }

    /// The first event from now on that is looked for: its id and data.
    pub(crate) async fn until(&mut self, wanted: impl Fn(&str, &Value) -> bool) -> (i64, Value) {
        loop {
            while let Some(end) = self.text.find("\n\n") {
                let event: String = self.text.drain(..end + 2).collect();
                let field = |name: &str| {
                    event
                        .lines()
                        .find_map(|l| l.strip_prefix(name))
                        .map(str::trim)
                };
                let data = field("data:").unwrap_or_default();
                let data = serde_json::from_str(data).unwrap_or_else(|_| json!(data));
                if wanted(field("event:").unwrap_or_default(), &data) {
                    let id = field("id:").and_then(|id| id.parse().ok());
                    return (id.unwrap_or_default(), data);
                }
            }
            let more = self.response.chunk();
            let more = tokio::time::timeout(std::time::Duration::from_secs(30), more);
            let more = more.await.expect("an event within half a minute").unwrap();
            self.text += std::str::from_utf8(&more.expect("the stream goes on")).unwrap();
        }
    }
}

/// A thing's id.
pub(crate) fn id(thing: &Value) -> String {
    thing["id"].as_str().unwrap().to_owned()
}

/// A change of a page's plan, made at a station.
pub(crate) fn change(page: &Value, station: &str, patch: Value, reason: &str) -> Value {
    json!({"revision": page["revision"], "station": station, "patch": patch, "reason": reason})
}

/// A change of a page's photo count.
pub(crate) fn photos(page: &Value, count: u32, reason: &str) -> Value {
    let patch = json!({"photos": {"photos": {"count": count}}});
    change(page, "fit", patch, reason)
}

/// What undo takes back (`undo`) or redo brings back (`redo`) next at a station, by its reason.
pub(crate) fn next_step(page: &Value, station: &str, way: &str) -> Value {
    let steps = page["trails"][station][way].as_array();
    steps
        .and_then(|steps| steps.last())
        .map_or(Value::Null, |step| step["reason"].clone())
}

pub(crate) async fn answer(request: RequestBuilder) -> (StatusCode, Value) {
    let response = request.send().await.unwrap();
    let status = response.status();
    let text = response.text().await.unwrap();
    (
        status,
        serde_json::from_str(&text).unwrap_or(Value::String(text)),
    )
}
