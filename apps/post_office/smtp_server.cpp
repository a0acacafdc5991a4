// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/post_office/smtp_server.h"

#include <QDateTime>
#include <QDir>
#include <QSaveFile>
#include <QTcpSocket>

namespace jg {

namespace {

constexpr qsizetype kLongestLine = 64 * 1024;

void say(QTcpSocket* socket, const char* line) {
    socket->write(line);
    socket->write("\r\n");
}

} // namespace

SmtpServer::SmtpServer(QString folder, QObject* parent)
    : QObject(parent)
    , folder_(std::move(folder)) {
    connect(&server_, &QTcpServer::newConnection, this, &SmtpServer::accept);
}

/// Whoever still talks is cut off with the server, and nothing of that is heard here: the talks are gone
/// then.
SmtpServer::~SmtpServer() {
    for (auto talk = talks_.keyBegin(); talk != talks_.keyEnd(); ++talk) (*talk)->disconnect(this);
}

bool SmtpServer::listen(quint16 port) {
    return QDir().mkpath(folder_) && server_.listen(QHostAddress::LocalHost, port);
}

void SmtpServer::accept() {
    while (QTcpSocket* socket = server_.nextPendingConnection()) {
        talks_.insert(socket, Talk{});
        connect(socket, &QTcpSocket::readyRead, this, [this, socket] { readLines(socket); });
        connect(socket, &QTcpSocket::disconnected, this, [this, socket] {
            talks_.remove(socket);
            socket->deleteLater();
        });
        say(socket, "220 post-office on this machine");
    }
}

void SmtpServer::readLines(QTcpSocket* socket) {
    while (talks_.contains(socket) && socket->canReadLine()) {
        QByteArray line = socket->readLine(kLongestLine);
        while (line.endsWith('\n') || line.endsWith('\r')) line.chop(1);
        onLine(socket, talks_[socket], line);
    }
}

void SmtpServer::onLine(QTcpSocket* socket, Talk& talk, const QByteArray& line) {
    switch (talk.wait) {
    case Talk::Wait::Command:
        onCommand(socket, talk, line);
        return;
    case Talk::Wait::Data:
        onData(socket, talk, line);
        return;
    case Talk::Wait::AuthPlain:
    case Talk::Wait::AuthUser:
    case Talk::Wait::AuthPassword:
        onAuth(socket, talk, line);
        return;
    }
}

void SmtpServer::onCommand(QTcpSocket* socket, Talk& talk, const QByteArray& line) {
    const QByteArray verb = line.left(4).toUpper();
    if (verb == "EHLO") {
        greetedAs_ = line.mid(5).trimmed().toStdString();
        socket->write(user_.isEmpty() ? "250-post-office\r\n250 8BITMIME\r\n"
                                      : "250-post-office\r\n250-AUTH PLAIN LOGIN\r\n250 8BITMIME\r\n");
    } else if (verb == "HELO" || verb == "NOOP") {
        say(socket, "250 good");
    } else if (verb == "AUTH") {
        const QByteArrayList words = line.split(' ');
        const QByteArray kind = words.value(1).toUpper();
        talk.wait = kind == "LOGIN" ? Talk::Wait::AuthUser : Talk::Wait::AuthPlain;
        if (words.size() > 2)
            onAuth(socket, talk, words[2]);
        else
            say(socket, kind == "LOGIN" ? "334 VXNlcm5hbWU6" : "334 ");
    } else if (verb == "MAIL") {
        const bool stranger = !user_.isEmpty() && !talk.loggedIn;
        talk.hasSender = !stranger;
        say(socket, stranger ? "530 say who you are first" : "250 sender noted");
    } else if (verb == "RCPT") {
        if (mood_ == PostOfficeMood::RefusesRecipients) return say(socket, "550 nobody of that name here");
        ++talk.recipients;
        say(socket, "250 recipient noted");
    } else if (verb == "DATA") {
        if (!talk.hasSender || talk.recipients == 0) return say(socket, "503 sender and recipient first");
        talk.wait = Talk::Wait::Data;
        talk.lines.clear();
        say(socket, "354 go on, end with a dot");
    } else if (verb == "RSET") {
        talk.hasSender = false;
        talk.recipients = 0;
        say(socket, "250 forgotten");
    } else if (verb == "QUIT") {
        say(socket, "221 goodbye");
        socket->disconnectFromHost();
    } else {
        say(socket, "502 not known here");
    }
}

void SmtpServer::onAuth(QTcpSocket* socket, Talk& talk, const QByteArray& line) {
    const QByteArray plain = QByteArray::fromBase64(line);
    if (talk.wait == Talk::Wait::AuthPlain) {
        const QByteArrayList parts = plain.split('\0');
        login(socket, talk, parts.value(1), parts.value(2));
    } else if (talk.wait == Talk::Wait::AuthUser) {
        talk.user = plain;
        talk.wait = Talk::Wait::AuthPassword;
        say(socket, "334 UGFzc3dvcmQ6");
    } else {
        login(socket, talk, talk.user, plain);
    }
}

void SmtpServer::login(QTcpSocket* socket, Talk& talk, const QByteArray& user, const QByteArray& password) {
    talk.wait = Talk::Wait::Command;
    talk.loggedIn = user == user_.toUtf8() && password == password_.toUtf8();
    say(socket, talk.loggedIn ? "235 welcome" : "535 name or password is wrong");
}

void SmtpServer::onData(QTcpSocket* socket, Talk& talk, const QByteArray& line) {
    if (mood_ == PostOfficeMood::DropsDuringData && talk.lines.size() > 20) {
        socket->abort();
        return;
    }
    if (line != ".") {
        talk.lines << (line.startsWith('.') ? line.mid(1) : line);
        return;
    }
    talk.wait = Talk::Wait::Command;
    talk.hasSender = false;
    talk.recipients = 0;
    if (mood_ == PostOfficeMood::SilentAfterData) {
        socket->abort();
        return;
    }
    const bool stored = keep(talk.lines);
    talk.lines.clear();
    say(socket, stored ? "250 kept" : "452 no room to keep it");
}

bool SmtpServer::keep(const QByteArrayList& lines) {
    const QString name = QDateTime::currentDateTimeUtc().toString("yyyyMMdd-hhmmss-zzz") +
                         QString("-%1.eml").arg(++kept_, 3, 10, QChar('0'));
    const QString path = QDir(folder_).filePath(name);
    QSaveFile file(path);
    if (!file.open(QIODevice::WriteOnly)) return false;
    file.write(lines.join("\r\n"));
    file.write("\r\n");
    if (!file.commit()) return false;
    Q_EMIT received(path);
    return true;
}

} // namespace jg
