// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/post/scripted_server.h"

#include "tests/support/fixtures.h"

#include <QFile>
#include <QSslCertificate>
#include <QSslKey>
#include <QSslSocket>
#include <QTcpServer>

#include <chrono>
#include <memory>

namespace jg::test {

namespace {

constexpr int kWaitMs = 4000;

/// Hands out its connections as sockets that can speak TLS.
class Listener : public QTcpServer {
public:
    std::unique_ptr<QSslSocket> next() {
        if (!waitForNewConnection(kWaitMs)) return nullptr;
        auto socket = std::make_unique<QSslSocket>();
        socket->setSocketDescriptor(descriptor_);
        return socket;
    }

protected:
    void incomingConnection(qintptr descriptor) override { descriptor_ = descriptor; }

private:
    qintptr descriptor_ = -1;
};

QByteArray contents(const std::filesystem::path& path) {
    QFile file(QString::fromStdString(path.string()));
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

bool encrypt(QSslSocket& socket, const Certificate& c) {
    socket.setLocalCertificate(QSslCertificate(contents(c.certificate), QSsl::Pem));
    socket.setPrivateKey(QSslKey(contents(c.key), QSsl::Rsa, QSsl::Pem));
    socket.setPeerVerifyMode(QSslSocket::VerifyNone); // of the client
    socket.startServerEncryption();
    return socket.waitForEncrypted(kWaitMs);
}

} // namespace

/// Lines and bytes of a talk, waited for.
class TalkSocket {
public:
    explicit TalkSocket(QSslSocket& socket)
        : socket_(socket) {}
    void say(const QByteArray& line) {
        socket_.write(line);
        socket_.waitForBytesWritten(kWaitMs);
    }
    /// Nothing when the other side is gone.
    std::optional<QByteArray> line() {
        while (!socket_.canReadLine())
            if (!socket_.waitForReadyRead(kWaitMs)) return std::nullopt;
        return socket_.readLine();
    }
    bool there() const { return socket_.state() == QAbstractSocket::ConnectedState; }
    void close() { socket_.abort(); }

private:
    QSslSocket& socket_;
};

std::optional<Certificate> makeCertificate(const std::filesystem::path& folder) {
    const Certificate c{folder / "certificate.pem", folder / "key.pem"};
    int code = -1;
    shell("openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=localhost -addext "
          "subjectAltName=IP:127.0.0.1 "
          "-keyout '" +
              c.key.string() + "' -out '" + c.certificate.string() + "' 2>&1",
          &code);
    return code == 0 ? std::optional(c) : std::nullopt;
}

ScriptedServer::ScriptedServer(ServerFault fault, const std::optional<Certificate>& certificate)
    : fault_(std::move(fault))
    , thread_([this, certificate] { serve(certificate); }) {
    while (port_ == 0) std::this_thread::sleep_for(std::chrono::milliseconds(1));
}

ScriptedServer::~ScriptedServer() = default;

bool ScriptedServer::has() {
    if (thread_.joinable()) thread_.join();
    return has_;
}

/// Misbehaves here when it is to; true when the talk is over.
bool ScriptedServer::fails(TalkSocket& socket, const std::string& at) {
    if (fault_.at != at) return false;
    switch (fault_.how) {
    case Failing::Closes:
        break;
    case Failing::SaysLater:
        socket.say("451 try again later\r\n");
        break;
    case Failing::SaysNo:
        socket.say("554 not here\r\n");
        break;
    case Failing::Babbles:
        socket.say("what is this\r\n");
        break;
    case Failing::HalfALine:
        socket.say("25");
        break;
    case Failing::SaysNothing:
        for (int i = 0; i < 5 && socket.there(); ++i) (void)socket.line();
        break;
    }
    socket.close();
    return true;
}

void ScriptedServer::serve(const std::optional<Certificate>& certificate) {
    Listener listener;
    if (!listener.listen(QHostAddress::LocalHost)) return;
    port_ = listener.serverPort();
    const auto connection = listener.next();
    if (!connection || (certificate && !encrypt(*connection, *certificate))) return;
    TalkSocket socket(*connection);
    if (fails(socket, "connect")) return;
    socket.say("220 here\r\n");
    std::size_t body = 0;
    bool inBody = false;
    while (const auto line = socket.line()) {
        const std::string verb = line->left(4).trimmed().toUpper().toStdString();
        if (inBody && *line == ".\r\n") {
            inBody = false;
            // What it says then decides: a mail that it refuses it does not keep.
            has_ = fault_.at != "dot" || fault_.how == Failing::Closes || fault_.how == Failing::HalfALine;
            if (fails(socket, "dot")) return;
            socket.say("250 kept\r\n");
        } else if (inBody) {
            body += static_cast<std::size_t>(line->size());
            if (fault_.at == "body" && body >= fault_.bodyBytes && fails(socket, "body")) return;
        } else if (fails(socket, verb)) {
            return;
        } else if (verb == "EHLO") {
            socket.say("250-here\r\n250 8BITMIME\r\n");
        } else if (verb == "DATA") {
            inBody = true;
            socket.say("354 go on\r\n");
        } else if (verb == "QUIT") {
            socket.say("221 bye\r\n");
            return;
        } else {
            socket.say("250 well\r\n");
        }
    }
}

} // namespace jg::test
