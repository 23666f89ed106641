# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::ReadCuts do
  around { |example| Dir.mktmpdir { |folder| (@folder = File.realpath(folder)) && example.run } }

  let(:cuts) { described_class.new }
  let!(:id) { Studio.cut(@folder).id }

  def queries
    count = 0
    counted = ActiveSupport::Notifications.subscribe("sql.active_record") { count += 1 }
    yield
    count
  ensure
    ActiveSupport::Notifications.unsubscribe(counted)
  end

  # Once more, where something else has been written on the same server meanwhile: other specs may run beside these.
  def undisturbed
    seen = -> { Server::Record.connection.select_value("SELECT pg_current_snapshot()::text") }
    Array.new(200).each do
      before, made = seen.call, yield
      return made if seen.call == before
    end
    raise "something is written all the time"
  end

  # As another process does.
  def elsewhere(&work) = Thread.new { ActiveRecord::Base.connection_pool.with_connection(&work) }.value

  def grade(cut) = cut.loaded_shots.map { |shot| shot.grade.entries.map { |entry| entry.step.values } }

  it "are read once, for as long as nothing is written" do
    first, again, count = undisturbed do
      first, again = cuts.with(id) { |cut| grade(cut) && cut }, nil
      count = queries { cuts.with(id.to_s) { |cut| grade(again = cut) } }
      [first, again, count]
    end
    expect([again, count]).to match([equal(first), 1])
  end

  it "have recipes that are read once as well, for as long as files that their steps read are the same" do
    lut = File.join(Mordant::Library.luts, "warm.cube")
    FileUtils.rm_f(lut)
    documents = [{"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0}}]}, {"steps" => [{"id" => "a", "kind" => "lut", "parameters" => {"lut" => "warm.cube"}}]}]
    read = -> { cuts.with(id) { |cut| cut.loaded_shots.first.recipe.grade } }
    documents.each do |document|
      Server::Shot.where(cut_id: id).first.recipe.update!(document:)
      first, again, other = undisturbed { [read.call, read.call, FileUtils.mkdir_p(File.dirname(lut)) && File.write(lut, "LUT_3D_SIZE 2\n") && read.call] }
      expect([again.equal?(first), other.equal?(first)]).to eq([true, document == documents.first])
    end
    recipe = Server::Shot.where(cut_id: id).first.recipe.tap(&:grade)
    recipe.document = documents.first
    expect(recipe.grade.entries.first.step.values[:exposure]).to eq(1.0)
  ensure
    FileUtils.rm_f(lut)
  end

  it "are read anew after anything has been written, by whoever it was and wherever that is" do
    first = cuts.with(id) { |cut| cut.loaded_shots.first && cut }
    writes = [
      -> { Server::Shot.where(cut_id: id).first.recipe.update!(document: {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 1.0}}]}) },
      -> { Server::Clip.order(:id).first.then { |clip| clip.update!(range: (clip.range == "full") ? "legal" : "full") } },
      -> { Server::Project.order(:id).first.then { |project| project.update!(compress_gamut: !project.compress_gamut) } },
      -> { elsewhere { Server::Shot.connection.execute("UPDATE shots SET name = 'other'") } }
    ]
    seen = writes.map do |write|
      write.call
      cuts.with(id) { |cut| cut }
    end
    expect([first, *seen].uniq(&:object_id).size).to eq(writes.size + 1)
    expect(cuts.with(id) { |cut| [cut.loaded_shots.first.name, *grade(cut).first.map { |values| values[:exposure] }] }).to eq(["other", 1.0])
  end

  it "show nothing of what is given up, nor what is not written yet" do
    name = cuts.with(id) { |cut| cut.loaded_shots.first.name }
    Server::Record.transaction do
      Server::Shot.where(cut_id: id).update_all(name: "other")
      expect(elsewhere { cuts.with(id) { |cut| cut.loaded_shots.first.name } }).to eq(name)
      expect(cuts.with(id) { |cut| cut.loaded_shots.first.name }).to eq("other")
      raise ActiveRecord::Rollback
    end
    expect(cuts.with(id) { |cut| cut.loaded_shots.first.name }).to eq(name)
  end

  it "are seen as they were written, when that began before they were read" do
    begun, over = Queue.new, Queue.new
    writing = Thread.new do
      ActiveRecord::Base.connection_pool.with_connection do
        Server::Record.transaction do
          Server::Shot.where(cut_id: id).update_all(name: "other")
          begun << true
          over.pop
        end
      end
    end
    begun.pop
    expect(cuts.with(id) { |cut| cut.loaded_shots.first.name }).not_to eq("other")
    over << true
    writing.join
    expect(cuts.with(id) { |cut| cut.loaded_shots.first.name }).to eq("other")
  end

  it "are used by one at a time, and not again after an error" do
    kept = cuts.with(id) { |cut| cut }
    described_class.new.then { |others| others.with(id) { |cut| others.with(id) { |other| expect(other).not_to be(cut) } } }
    expect { cuts.with(id) { raise "no" } }.to raise_error("no")
    expect(cuts.with(id) { |cut| cut }).not_to be(kept)
    expect { cuts.with(0) { nil } }.to raise_error(Server::Record::Missing, /cut 0/)
  end
end
