# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::AccountCommand do
  after { Server::Person.forget }

  # @return [Array(Integer, String, String)] exit code, what it says, and what it complains of
  def run(*arguments, input: "")
    output, errors = StringIO.new, StringIO.new
    [described_class.new(input: StringIO.new(input), output:, errors:).call(arguments), output.string, errors.string]
  end

  it "makes, lists, changes and ends accounts" do
    expect(run("add", "Ada Quill", "--role", "administer", input: "long enough\n")).to match([0, /made an account for Ada Quill/, ""])
    expect(run("add", "Bo Larch", "--role", "look", "--initials", "BL2", input: "long enough too\n").first).to eq(0)
    expect(run("list")).to match([0, /Ada Quill +AQ +administer\nBo Larch +BL2 +look\n/, ""])
    expect(run("role", "bo larch", "grade").first).to eq(0)
    expect(run("password", "Bo Larch", input: "another one\n").first).to eq(0)
    expect(Server::Person.known("Bo Larch", "another one")).to have_attributes(role: "grade")
    expect(run("end", "Bo Larch").first).to eq(0)
    expect(Server::Person.known("Bo Larch", "another one")).to be_nil
    expect(run("back", "Bo Larch").first).to eq(0)
    expect(run("sign-out", "Bo Larch").first).to eq(0)
  end

  it "says what is wrong, and how it is used" do
    expect(run("add", "Ada", "--role", "king", input: "long enough\n")).to match([1, "", /role: expected look, grade, deliver, administer/])
    expect(run("add", "Ada", "--role", "administer", input: "short\n")).to match([1, "", /password: expected 10 characters/])
    expect(run("end", "Nobody")).to match([1, "", /there is no account Nobody/])
    expect(run("fly")).to match([2, "", /usage: bin.account/])
    expect(run("add", "--shoes")).to match([2, "", /invalid option/])
    expect(run("--help")).to match([0, /usage/, ""])
    run("add", "Ada", "--role", "administer", input: "long enough\n")
    expect(run("end", "Ada")).to match([1, "", /one account at least that administers/])
    expect(Server::Person.first.ended).to be(false)
  end
end
