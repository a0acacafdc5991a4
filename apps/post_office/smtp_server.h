// SPDX-License-Identifier: GPL-3.0-or-later
// The stand-in post office: a small SMTP server on the loopback that keeps what it gets.
#pragma once

#include <QHash>
#include <QObject>
#include <QStringList>
#include <QTcpServer>

class QTcpSocket;

namespace jg {

/// Ways to misbehave, for tests.
enum class PostOfficeMood { Friendly, RefusesRecipients, DropsDuringData, SilentAfterData };

/// Listens on 127.0.0.1 only and stores each mail as one .eml file, written whole. Knows EHLO, HELO, AUTH
/// PLAIN and LOGIN, MAIL, RCPT, DATA, RSET, NOOP, QUIT (RFC 5321, RFC 4954).
class SmtpServer : public QObject {
    Q_OBJECT
public:
    explicit SmtpServer(QString folder, QObject* parent = nullptr);
    ~SmtpServer() override;
    /// False when the port is taken; 0 = any free port.
    bool listen(quint16 port);
    quint16 port() const { return server_.serverPort(); }
    QString errorText() const { return server_.errorString(); }
    /// Asks for this name and password; empty = none.
    void requireLogin(const QString& user, const QString& password) { user_ = user, password_ = password; }
    void setMood(PostOfficeMood mood) { mood_ = mood; }
    /// What the last one called itself in EHLO.
    std::string greetedAs() const { return greetedAs_; }

Q_SIGNALS:
    void received(const QString& file);

private:
    struct Talk {
        enum class Wait { Command, AuthPlain, AuthUser, AuthPassword, Data } wait = Wait::Command;
        QByteArray user;
        bool loggedIn = false;
        bool hasSender = false;
        int recipients = 0;
        QByteArrayList lines; ///< of the mail at hand
    };
    void accept();
    void readLines(QTcpSocket* socket);
    void onLine(QTcpSocket* socket, Talk& talk, const QByteArray& line);
    void onCommand(QTcpSocket* socket, Talk& talk, const QByteArray& line);
    void onAuth(QTcpSocket* socket, Talk& talk, const QByteArray& line);
    void login(QTcpSocket* socket, Talk& talk, const QByteArray& user, const QByteArray& password);
    void onData(QTcpSocket* socket, Talk& talk, const QByteArray& line);
    bool keep(const QByteArrayList& lines);

    QString folder_;
    QTcpServer server_;
    QString user_, password_;
    PostOfficeMood mood_ = PostOfficeMood::Friendly;
    QHash<QTcpSocket*, Talk> talks_;
    int kept_ = 0;
    std::string greetedAs_;
};

} // namespace jg
