# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../supervisor/cluster"
require_relative "../supervisor/database_watch"
require_relative "../supervisor/processes"

RSpec.describe Supervisor::Cluster do
  let(:cluster) { described_class.new(folder: File.join(@folder, "postgres")) }

  after { cluster.stop }

  def answers?(address)
    connection = PG.connect(address)
    connection.exec("SELECT 1").getvalue(0, 0) == "1"
  ensure
    connection&.close
  end

  it "starts a server of its own, with a password, not as root, and keeps its data" do
    cluster.start
    address = cluster.address("postgres")
    expect(answers?(address)).to be(true)
    expect(described_class.new(folder: File.join(@folder, "postgres")).address("postgres")).to eq(address)
    expect { PG.connect(address.sub(/:[^:@]+@/, ":wrong@")) }.to raise_error(PG::ConnectionBad, /password authentication failed/)
    PG.connect(address).tap { |connection| connection.exec("CREATE TABLE kept (n int)") }.close
    expect(waits_for_the_disk?(address)).to be(true)
    expect(File.stat(File.realpath(File.join(@folder, "postgres/data"))).uid).not_to eq(0)
    cluster.stop
    expect { described_class.new(folder: File.join(@folder, "postgres")).address("postgres") }.to raise_error(Supervisor::Trouble, /does not run/)
    cluster.start
    expect(PG.connect(cluster.address("postgres")).then { |c| c.exec("SELECT to_regclass('kept')").getvalue(0, 0).tap { c.close } }).to eq("kept")
    fleeting = described_class.new(folder: File.join(@folder, "postgres"), lasting: false).tap(&:start)
    expect(waits_for_the_disk?(fleeting.address("postgres"))).to be(false)
  end

  def waits_for_the_disk?(address)
    connection = PG.connect(address)
    %w[fsync synchronous_commit full_page_writes].all? { |name| connection.exec("SHOW #{name}").getvalue(0, 0) == "on" }
  ensure
    connection&.close
  end

  it "starts again after it was killed" do
    cluster.start
    id = File.read(File.join(File.realpath(File.join(@folder, "postgres")), "data/postmaster.pid")).to_i
    Process.kill("KILL", id)
    sleep 0.3
    cluster.start
    expect(answers?(cluster.address("postgres"))).to be(true)
  end

  it "says what the server's log says when it refuses" do
    cluster.start
    cluster.stop
    File.write(File.join(File.realpath(File.join(@folder, "postgres")), "data/postgresql.conf"), "no_such_setting = 1\n", mode: "a")
    expect { cluster.start }.to raise_error(Supervisor::Trouble, /PostgreSQL refused to start.*no_such_setting/m)
  end
end

RSpec.describe Supervisor::DatabaseWatch do
  let(:cluster) { Supervisor::Cluster.new(folder: File.join(@folder, "postgres")) }
  let(:note) { File.join(@folder, "note") }
  let(:watch) { described_class.new(cluster, note:).tap { |one| allow(one).to receive(:warn) } }
  let(:data) { File.join(File.realpath(File.join(@folder, "postgres")), "data") }

  before { cluster.start }

  after { cluster.stop }

  def kill
    Process.kill("KILL", File.read(File.join(data, "postmaster.pid")).to_i)
    sleep 0.05 while cluster.alive?
  end

  def until_it_is_there
    stub_const("Supervisor::DatabaseWatch::PAUSES", [0.1])
    deadline = Time.now + 10
    sleep 0.05 until watch.call || Time.now > deadline
  end

  it "starts a database that was killed, where it was" do
    address = cluster.address("postgres")
    expect(watch.call).to be(true)
    kill
    until_it_is_there
    expect(PG.connect(address).then { |connection| connection.exec("SELECT 1").getvalue(0, 0).tap { connection.close } }).to eq("1")
    expect(File.exist?(note)).to be(false)
  end

  it "notes why it does not come up, and takes the note away when it does" do
    watch
    kill
    File.write(File.join(data, "postgresql.conf"), "no_such_setting = 1\n", mode: "a")
    expect(watch.call).to be(false)
    expect(File.read(note)).to match(/does not start, and nothing can be kept.*tried again every 15 s.*no_such_setting/)
    File.write(File.join(data, "postgresql.conf"), File.read(File.join(data, "postgresql.conf")).sub("no_such_setting = 1\n", ""))
    until_it_is_there
    expect(File.exist?(note)).to be(false)
  end

  it "says that the disk is full where that is the reason" do
    kill
    log = File.join(File.realpath(File.join(@folder, "postgres")), "log")
    allow(cluster).to receive(:pg_ctl).and_wrap_original do |original, verb, *rest|
      (verb == "start") ? (File.write(log, "FATAL:  could not write lock file: No space left on device\n", mode: "a") && false) : original.call(verb, *rest)
    end
    expect(watch.call).to be(false)
    expect(File.read(note)).to match(/the disk with the database \(.*\) is full; make room on it/)
  end
end

RSpec.describe Supervisor::Processes do
  let(:processes) { described_class.new(environment: {"MORDANT_PORT" => "1"}, log: File.join(@folder, "log")) }

  before do
    stub_const("Supervisor::Processes::LOOK_EVERY", 0.02)
    stub_const("Supervisor::Processes::PAUSES", [0.05])
    allow(processes).to receive(:warn)
    allow(processes).to receive(:start_worker) { |number| processes.running["worker-#{number}"] = spawn("exit 1") }
  end

  after { processes.stop }

  it "starts again what ends only while the database is there" do
    processes.start_worker(0)
    looks = 0
    expect { processes.watch { ((looks += 1) > 20) ? raise(Interrupt) : false } }.to raise_error(Interrupt)
    expect(processes).to have_received(:start_worker).once
  end

  it "gives up what goes on ending" do
    processes.start_worker(0)
    expect { processes.watch { true } }.to raise_error(Supervisor::Trouble, /worker-0 has ended 13 times within two minutes.*worker-0\.log says why/)
  end
end

RSpec.describe "bin/start" do
  def start(*arguments)
    output, status = Open3.capture2e({"MORDANT_VAR" => @folder}, File.join(Server::ROOT, "bin/start"), *arguments)
    [status.exitstatus, output]
  end

  it "explains itself, and refuses what it cannot do before it does anything" do
    expect(start("--help")).to match([0, /usage: bin\/start.*--port.*--no-demo.*--media/m])
    expect(start("--nothing")).to match([2, /invalid option: --nothing/])
    expect(start("--port", "99999")).to match([1, /--port must be/])
    expect(start("--media", "/no/such/folder")).to match([1, %r{the media folder /no/such/folder is not there}])
  end

  it "says that the port is taken" do
    TCPServer.open("127.0.0.1", 0) do |server|
      expect(start("--port", server.addr[1].to_s)).to match([1, /port #{server.addr[1]} is in use.*--port/])
    end
  end

  it "does not start twice from one folder" do
    File.open(File.join(@folder, "start.lock"), File::RDWR | File::CREAT) do |lock|
      lock.flock(File::LOCK_EX)
      expect(start).to match([1, /already running from this folder/])
    end
  end
end
