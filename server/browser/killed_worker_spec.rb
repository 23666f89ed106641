# frozen_string_literal: true

require_relative "spec_helper"
require "digest"

RSpec.describe "Workers that are killed during a render" do
  before do
    folder = File.join(MEDIA, "day twelve")
    FileUtils.mkdir_p(folder)
    %w[heron/H014/H014_1A.mov heron/H014/H014_1B.mov].each { |file| FileUtils.cp(File.join(Server::ROOT, "demo/media", file), folder) }
    project = Server::Project.create!(name: "Storm #{SecureRandom.hex(3)}", width: 480, height: 270)
    taking = Server::Intake::Taking.new(project, Server::MediaRoot.find_by!(path: File.realpath(MEDIA)))
    clips = %w[H014_1A H014_1B].map { |name| taking.call("day twelve/#{name}.mov") }
    @cut = Server::Cut.create_named!(project, "Day")
    clips.each_with_index { |clip, index| @cut.add([{clip:, position: index, source_in: 6, record_in: index * 18, length: 18}]) }
    @cut = Server::Cut.find(@cut.id)
    @cut.loaded_shots.first.recipe.accept(revision: 0, document: {"steps" => [{"id" => "a", "kind" => "balance", "parameters" => {"exposure" => 0.4, "saturation" => 1.2}}]}, words: "x")
  end

  def order(name)
    outputs = [{"format" => "dpx-10", "target" => "television"}, {"format" => "ffv1", "target" => "television", "name" => "#{name}_film"}]
    Server::Order.place(cut: Server::Cut.find(@cut.id), sheets: outputs, shots: nil, template: name).outputs.to_a
  end

  def until_true(seconds)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    sleep 0.1 until yield || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
    expect(yield).to be_truthy
  end

  def sums(outputs)
    sequence, film = outputs.map(&:file)
    frames = Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-i", film, "-f", "framemd5", "-"], path: film).lines.grep_v(/\A#/)
    # the name of a sequence is in its headers
    [Dir.children(sequence).sort.map { |name| Digest::MD5.hexdigest(File.binread(File.join(sequence, name)).byteslice(2048..)) }, frames]
  end

  it "leave what is finished to others, and the whole is the same bit for bit" do
    calm = order("calm_#{SecureRandom.hex(2)}")
    until_true(300) { calm.all? { |output| output.reload.status == "done" } }
    hit = order("storm_#{SecureRandom.hex(2)}")
    2.times do |round|
      until_true(200) { hit.first.reload.done > round * 9 + 3 }
      %w[worker-0 worker-1].each do |name|
        id = PROCESSES.running.delete(name)
        Process.kill("KILL", -id)
        Process.wait(id)
      end
      2.times { |number| PROCESSES.start_worker(number) }
    end
    until_true(300) { hit.all? { |output| output.reload.over? } }
    expect(hit.map { |output| [output.status, output.message] }).to all(eq(["done", nil]))
    expect(sums(hit)).to eq(sums(calm))
    expect(sums(calm).map(&:size)).to eq([Server::Cut.find(@cut.id).timeline.length] * 2)
  end
end
