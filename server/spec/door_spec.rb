# frozen_string_literal: true

require_relative "spec_helper"
require_relative "../supervisor/door"

RSpec.describe Supervisor::Door do
  # @return [Array<String>] files of a certificate made here, and its key
  def pem(names:, until: Time.now + 3600)
    key = OpenSSL::PKey::RSA.new(2048)
    certificate = OpenSSL::X509::Certificate.new.tap do |made|
      made.version, made.serial = 2, 1
      made.subject = made.issuer = OpenSSL::X509::Name.parse("/CN=common.example")
      made.public_key = key.public_key
      made.not_before, made.not_after = Time.now - 60, binding.local_variable_get(:until)
      made.add_extension(OpenSSL::X509::ExtensionFactory.new(nil, made).create_extension("subjectAltName", names.join(","))) unless names.empty?
      made.sign(key, OpenSSL::Digest.new("SHA256"))
    end
    {"cert" => certificate, "key" => key}.map { |name, value| File.join(@folder, "#{name}-#{SecureRandom.hex(3)}.pem").tap { |path| File.write(path, value.to_pem) } }
  end

  it "is loopback alone unless something else is asked for" do
    expect(described_class.new(port: 4680)).to have_attributes(address: "http://127.0.0.1:4680/", environment: include("MORDANT_BIND" => "127.0.0.1"))
    expect(described_class.new(port: 4680).environment.keys).not_to include("MORDANT_TLS", "MORDANT_PROXY")
  end

  it "refuses to be reached by others without TLS or a stated proxy" do
    expect { described_class.new(port: 1, bind: "0.0.0.0") }.to raise_error(Supervisor::Trouble, /--tls CERT,KEY, or --proxy/)
    expect { described_class.new(port: 1, bind: "0.0.0.0", proxy: "http://grade.example") }.to raise_error(Supervisor::Trouble, %r{https://NAME})
    expect(described_class.new(port: 1, bind: "10.0.0.4", proxy: "https://grade.example/").environment).to include("MORDANT_PROXY" => "https://grade.example", "MORDANT_NAMES" => "10.0.0.4")
  end

  it "takes the names of the certificate, and says what is wrong with one" do
    files = pem(names: %w[DNS:grade.example IP:10.0.0.4])
    door = described_class.new(port: 4680, bind: "0.0.0.0", tls: files, names: ["Suite-3"])
    expect(door.environment).to include("MORDANT_NAMES" => "suite-3,grade.example,10.0.0.4", "MORDANT_TLS" => files.map { |path| File.realpath(path) }.join(","))
    expect(door.address).to eq("https://suite-3:4680/")
    expect(described_class.new(port: 1, bind: "0.0.0.0", tls: pem(names: [])).environment["MORDANT_NAMES"]).to eq("common.example")
    other = pem(names: [])
    expect { described_class.new(port: 1, tls: [files.first, other.last]) }.to raise_error(Supervisor::Trouble, /is not the key/)
    expect { described_class.new(port: 1, tls: pem(names: [], until: Time.now - 1)) }.to raise_error(Supervisor::Trouble, /has run out/)
    expect { described_class.new(port: 1, tls: [files.first]) }.to raise_error(Supervisor::Trouble, /two files/)
    expect { described_class.new(port: 1, tls: ["/nowhere.pem", files.last]) }.to raise_error(Supervisor::Trouble, /nowhere.pem is not there/)
    File.write(files.first, "no certificate")
    expect { described_class.new(port: 1, tls: files) }.to raise_error(Supervisor::Trouble, /is no PEM file/)
  end

  it "has the guard serve its names and no other, by https" do
    names = {"MORDANT_NAMES" => "grade.example", "MORDANT_TLS" => "a,b"}
    Server::Settings.instance_variable_set(:@names, nil)
    names.each { |name, value| ENV[name] = value }
    request = {"REQUEST_METHOD" => "GET", "PATH_INFO" => "/api/here"}
    reasons = {"grade.example:4680" => nil, "GRADE.example" => nil, "127.0.0.1" => nil, "evil.example" => /not served/, "grade.example.evil.example" => /not served/}
    reasons.each { |host, reason| expect(Server::Guard.refusal(request.merge("HTTP_HOST" => host))).to(reason ? match([403, reason]) : be_nil, host) }
    expect(Server::Guard.refusal(request.merge("HTTP_HOST" => "grade.example", "HTTP_ORIGIN" => "http://grade.example"))).to match([403, /other sites/])
    expect(Server::Guard.refusal(request.merge("HTTP_HOST" => "grade.example", "HTTP_ORIGIN" => "https://grade.example"))).to be_nil
  ensure
    names.each_key { |name| ENV.delete(name) }
    Server::Settings.instance_variable_set(:@names, nil)
  end
end
